<template>
  <!-- Filters in linear light: CSS's own grayscale() weighs encoded values and would falsify them. -->
  <svg width="0" height="0" aria-hidden="true" class="filters">
    <filter id="sight-grey" color-interpolation-filters="linearRGB">
      <feColorMatrix type="matrix" values="0.2126 0.7152 0.0722 0 0  0.2126 0.7152 0.0722 0 0  0.2126 0.7152 0.0722 0 0  0 0 0 1 0" />
    </filter>
    <filter id="sight-squint" color-interpolation-filters="linearRGB" x="0" y="0" width="100%" height="100%">
      <feGaussianBlur stdDeviation="9" edgeMode="duplicate" />
    </filter>
  </svg>
</template>

<style scoped>
.filters {
  position: absolute;
}
</style>
