import { getMetadataStorage } from 'class-validator';
import { OPERATIONS, type OperationName } from '../src/index.ts';

/** Every property that an operation is checked by, each once. */
export const propertiesOf = (name: OperationName): string[] => [
  ...new Set(
    getMetadataStorage()
      .getTargetValidationMetadatas(OPERATIONS[name], '', false, false)
      .map(({ propertyName }) => propertyName),
  ),
];
