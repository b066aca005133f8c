import { ValidateIf } from 'class-validator';

/** A field that may be left out. Unlike class-validator's own, null is not taken for absent. */
export const Optional = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);
