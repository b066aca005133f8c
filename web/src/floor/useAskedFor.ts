import { ref, watch, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** Whether a sheet is open that an address may ask for, as `?into=all`; once it is closed the address asks no more. */
export function useAskedFor(name: string): Ref<boolean> {
  const route = useRoute();
  const router = useRouter();
  const asked = (): boolean => route.query[name] === 'all';
  const isOpen = ref(asked());
  watch(asked, (now) => now && (isOpen.value = true));
  watch(isOpen, (now) => !now && asked() && void router.replace({ query: {} }));
  return isOpen;
}
