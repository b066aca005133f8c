// Workers do not inherit the loader: TypeScript has to be made known in each.
import { register } from 'tsx/esm/api';
register();
await import('./render.ts');
