import { v4 } from 'uuid';

/** An id for a row or a change. It is made where the browser's own maker is not to be had too: on a page that is not served securely. */
export const newId = (): string => v4();
