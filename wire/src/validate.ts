import 'reflect-metadata';
import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { InvalidRequest } from './invalid.ts';
import type { FieldError } from './problem.ts';
import { checkShape } from './shape.ts';

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

/**
 * Makes an instance of a wire class from what was sent.
 * @throws InvalidRequest when it is no object or of no shape to be checked, a field is wrong, or a field is unknown.
 */
export function readAs<T extends object>(type: ClassConstructor<T>, sent: unknown): T {
  checkShape(sent);
  if (typeof sent !== 'object' || sent === null || Array.isArray(sent))
    throw new InvalidRequest([{ field: '', message: 'The request must be a JSON object.' }]);
  const instance = plainToInstance(type, sent);
  const errors = validateSync(instance, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true, stopAtFirstError: true });
  if (errors.length > 0) throw new InvalidRequest(flattened(errors));
  return instance;
}
