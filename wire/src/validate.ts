import 'reflect-metadata';
import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { InvalidRequest } from './invalid.ts';
import type { FieldError } from './problem.ts';

function flattened(errors: readonly ValidationError[], path = ''): FieldError[] {
  return errors.flatMap((error) => {
    const field = path ? `${path}.${error.property}` : error.property;
    const own = Object.entries(error.constraints ?? {}).map(([rule, message]) => ({
      field,
      message:
        rule === 'whitelistValidation'
          ? `There is no field ${JSON.stringify(error.property.slice(0, 40))} here.`
          : `${message}.`.replace(/\.\.$/, '.'),
    }));
    return [...own, ...flattened(error.children ?? [], field)];
  });
}

/** Names that objects have by themselves: no field is called so, and what is made of one would be no object of its class. */
const OWN = ['constructor', '__proto__', 'prototype'] as const;
/** No field of ours lies so deep. */
const DEEPEST = 60;
/** Where in what was sent such a name stands; nothing where none does. */
function ownNameIn(sent: unknown, path = '', depth = 0): string | undefined {
  if (typeof sent !== 'object' || sent === null || depth > DEEPEST) return undefined;
  const own = OWN.find((name) => Object.hasOwn(sent, name));
  if (own) return path + own;
  for (const [key, inner] of Object.entries(sent)) {
    const found = ownNameIn(inner, `${path}${key}.`, depth + 1);
    if (found) return found;
  }
  return undefined;
}

/**
 * Makes an instance of a wire class from what was sent.
 * @throws InvalidRequest when it is no object, a field is wrong, or a field is unknown.
 */
export function readAs<T extends object>(type: ClassConstructor<T>, sent: unknown): T {
  if (typeof sent !== 'object' || sent === null || Array.isArray(sent))
    throw new InvalidRequest([{ field: '', message: 'The request must be a JSON object.' }]);
  const own = ownNameIn(sent);
  if (own) throw new InvalidRequest([{ field: own, message: `There is no field ${JSON.stringify(own.split('.').at(-1))} here.` }]);
  const instance = plainToInstance(type, sent);
  const errors = validateSync(instance, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true, stopAtFirstError: true });
  if (errors.length > 0) throw new InvalidRequest(flattened(errors));
  return instance;
}
