// Which mark is shown as held, where that is not the one that is held in Reference.
import type { InjectionKey, Ref } from 'vue';

export const HELD: InjectionKey<Readonly<Ref<string | undefined>>> = Symbol('the mark that is shown as held');
