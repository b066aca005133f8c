// What of a page cannot be pressed where it stands; goes into the page and is asked there.

/** What can be pressed and is cut, covered, or beyond the window; what is scrolled away in its own place can be scrolled to. */
export const faultsOfGeometry = (): string[] => {
  const faults: string[] = [];
  const { innerWidth, innerHeight } = window;
  if (document.documentElement.scrollWidth > innerWidth) faults.push(`the page is ${document.documentElement.scrollWidth} wide`);
  // While a dialog is open nothing else can be pressed.
  const within: ParentNode = [...document.querySelectorAll('.v-dialog.v-overlay--active > .v-overlay__content')].at(-1) ?? document;
  for (const element of within.querySelectorAll<HTMLElement>('a[href], button, select, input:not([type=file]), [role=application]')) {
    // Dabs and marks may lie on one another: what a press means there has tests of its own.
    if (
      element.matches('.ledge .pile, [data-test=mark], :disabled') ||
      !element.checkVisibility({ opacityProperty: false, visibilityProperty: true })
    )
      continue;
    const name = element.getAttribute('aria-label') ?? element.innerText ?? element.id;
    const { left, top, right, bottom, width, height } = element.getBoundingClientRect();
    if (width === 0 || height === 0) continue;
    const [x, y] = [(left + right) / 2, (top + bottom) / 2];
    let holder = element.parentElement;
    let isScrolledAway = false;
    while (holder) {
      const box = holder.getBoundingClientRect();
      if (
        /auto|scroll/.test(getComputedStyle(holder).overflow) &&
        (x < box.left || x > box.right || y <= box.top + 1 || y >= box.bottom - 1)
      )
        isScrolledAway = true;
      holder = holder.parentElement;
    }
    if (isScrolledAway) continue;
    if (x < 0 || y < 0 || x > innerWidth || y > innerHeight) faults.push(`“${name}” is off the screen`);
    else {
      const isHeldBy = (other: Element | null): boolean =>
        other !== null && (element === other || element.contains(other) || !!other.closest('label, .v-field')?.contains(element));
      const on = document.elementFromPoint(x, y);
      let isFree = isHeldBy(on);
      // What keys that stay in sight lie over is free once it is scrolled to.
      let over: Element | null = on;
      while (over && getComputedStyle(over).position !== 'sticky') over = over.parentElement;
      if (!isFree && over && !over.contains(element)) {
        let scroller = element.parentElement;
        while (scroller && scroller.scrollHeight <= scroller.clientHeight + 1) scroller = scroller.parentElement;
        const from = scroller?.scrollTop ?? 0;
        element.scrollIntoView({ block: 'center' });
        const box = element.getBoundingClientRect();
        isFree = isHeldBy(document.elementFromPoint((box.left + box.right) / 2, (box.top + box.bottom) / 2));
        if (scroller) scroller.scrollTop = from;
      }
      if (!isFree) faults.push(`“${name}” lies under <${on?.tagName.toLowerCase()} class="${on?.className}">`);
    }
  }
  return faults;
};
