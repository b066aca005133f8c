import { isUUID } from 'class-validator';
import {
  checkShape,
  InvalidRequest,
  MOST_OPERATIONS,
  OPERATIONS,
  readAs,
  type Change,
  type Operation,
  type OperationName,
} from '@dusk/wire';

const KNOWN_FIELDS = new Set(['id', 'device', 'ops', 'undoes']);
const LONGEST_DEVICE = 80;

const wrong = (field: string, message: string): InvalidRequest => new InvalidRequest([{ field, message }]);
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** One operation, checked by its own class; what is wrong is told with its place in the change. */
function operationFrom(sent: unknown, at: number): Operation {
  if (!isObject(sent)) throw wrong(`ops.${at}`, 'An operation is an object.');
  const { do: name, ...needs } = sent;
  if (typeof name !== 'string' || !Object.hasOwn(OPERATIONS, name))
    throw wrong(
      `ops.${at}.do`,
      typeof name === 'string' ? `There is no operation ${JSON.stringify(name.slice(0, 40))}.` : 'An operation says what it does, in "do".',
    );
  try {
    return { do: name, ...readAs<object>(OPERATIONS[name as OperationName], needs) } as Operation;
  } catch (cause) {
    if (!(cause instanceof InvalidRequest)) throw cause;
    throw new InvalidRequest(cause.fields.map(({ field, message }) => ({ field: `ops.${at}.${field}`, message })));
  }
}

/**
 * A change as it was sent.
 * @throws InvalidRequest that says which field of which operation is wrong
 */
export function changeFrom(sent: unknown): Change {
  if (!isObject(sent)) throw wrong('', 'The request must be a JSON object.');
  checkShape(sent);
  const { id, device, ops = [], undoes } = sent;
  const stranger = Object.keys(sent).find((key) => !KNOWN_FIELDS.has(key));
  if (stranger !== undefined) throw wrong(stranger, `There is no field ${JSON.stringify(stranger.slice(0, 40))} here.`);
  if (!isUUID(id)) throw wrong('id', 'A change is named by an id of its own.');
  if (typeof device !== 'string' || device.length === 0 || device.length > LONGEST_DEVICE)
    throw wrong('device', 'A change says which window it comes from.');
  if (undoes !== undefined && !isUUID(undoes)) throw wrong('undoes', 'What is undone is named by its id.');
  if (!Array.isArray(ops) || ops.length > MOST_OPERATIONS) throw wrong('ops', `A change has at most ${MOST_OPERATIONS} operations.`);
  if ((ops.length === 0) === (undoes === undefined)) throw wrong('ops', 'A change does something, or undoes another.');
  return {
    id: id as string,
    device,
    ops: ops.map(operationFrom),
    ...(undoes !== undefined && { undoes: undoes as string }),
  };
}
