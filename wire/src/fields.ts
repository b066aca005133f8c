import { isInCalendar } from '@dusk/core';
import { Transform, Type, type ClassConstructor } from 'class-transformer';
import {
  ArrayUnique,
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { Plain } from './plain.ts';

/** Several rules of a field under one name. */
const all =
  (...rules: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, key) =>
    rules.forEach((rule) => rule(target, key));

/** A field that may be left out. Unlike class-validator's own, null is not taken for absent. */
export const Optional = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);

/** A field that may be left out, or be null to say that there is none. */
export const Nullable = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined && value !== null);

/** The id of a row, made by whoever adds it. */
export const Id = (what: string): PropertyDecorator => IsUUID(undefined, { message: `${what} is named by its id` });

/** The version of a row that a change was made from. */
export const Version = (): PropertyDecorator =>
  all(IsInt({ message: 'A change says which version it changes' }), Min(1, { message: 'Versions start at 1' }));

/** A letter that leaves a mark: neither a space nor one of the fillers that count as letters. */
const SEEN = /[^\p{Z}\p{C}\p{M}\u115f\u1160\u3164\uffa0\u2800]/u;
const NO_CONTROL = /^\P{Cc}*$/u;

/** Words of a painter: not blank, and of a length that can be read. */
export function Words(what: string, most: number): PropertyDecorator {
  const message = `${what} has 1 to ${most} letters`;
  return all(
    IsString({ message }),
    Length(1, most, { message }),
    Matches(SEEN, { message: `${what} has at least one letter that can be seen` }),
    Matches(NO_CONTROL, { message: `${what} is one line of letters` }),
  );
}

/** Words that may be empty. */
export function Note(what: string, most: number): PropertyDecorator {
  const message = `${what} has at most ${most} letters`;
  return all(
    IsString({ message }),
    Length(0, most, { message }),
    // A long note has lines; no other mark of control is a letter.
    Matches(most > ONE_LINE ? NO_CONTROL_BUT_LINES : NO_CONTROL, { message: `${what} has letters in it that cannot be read` }),
    Matches(EMPTY_OR_SEEN, { message: `${what} has letters that can be seen, or none` }),
  );
}
/** Up to so many letters a note is one line. */
const ONE_LINE = 400;
const NO_CONTROL_BUT_LINES = /^(?:\P{Cc}|[\n\r\t])*$/u;
const EMPTY_OR_SEEN = /^$|[^\p{Z}\p{C}\p{M}\u115f\u1160\u3164\uffa0\u2800]/u;

/** A number within bounds. */
export function Within(what: string, least: number, most: number): PropertyDecorator {
  const message = `${what} is a number from ${least} to ${most}`;
  return all(IsNumber({ allowNaN: false, allowInfinity: false }, { message }), Min(least, { message }), Max(most, { message }));
}

/** A list of a length within bounds. */
export function ListOf(what: string, least: number, most: number): PropertyDecorator {
  const message = least === most ? `${what} are ${least}` : `${what} are ${least} to ${most}`;
  return all(IsArray({ message }), ArrayMinSize(least, { message }), ArrayMaxSize(most, { message }));
}

/** A list of a painter's words, each of which can be read. */
export function ListOfWords(what: string, least: number, most: number, one: string, longest: number): PropertyDecorator {
  const message = `${one} has 1 to ${longest} letters`;
  return all(
    ListOf(what, least, most),
    ArrayUnique({ message: `${what} are named once each` }),
    IsString({ each: true, message }),
    Length(1, longest, { each: true, message }),
    Matches(SEEN, { each: true, message: `${one} has at least one letter that can be seen` }),
    Matches(NO_CONTROL, { each: true, message: `${one} is one line of letters` }),
  );
}

/**
 * When something was done or seen: any offset is taken and kept as UTC, so that moments can be compared as they are
 * written; forms that name no day of a month (weeks, days of the year), and times of no place, are none.
 */
export const Moment = (): PropertyDecorator => {
  const message = 'A time looks like 2026-03-01T14:20:00Z';
  return all(
    Transform(({ value }: { readonly value: unknown }) => (typeof value === 'string' ? inUtc(value) : value)),
    IsISO8601({ strict: true, strictSeparator: true }, { message }),
    Matches(IS_MOMENT, { message }),
  );
};
const IS_MOMENT = /^\d{4}-\d\d-\d\d(?:T\d\d:\d\d(?::\d\d(?:\.\d{1,9})?)?(?:Z|[+-]\d\d:\d\d))?$/;
/** A moment in UTC; as it was written where it is none, or names a day that no month has. */
function inUtc(written: string): string {
  const [day] = written.split('T') as [string];
  const at = new Date(written);
  return IS_MOMENT.test(written) && !Number.isNaN(at.getTime()) && isInCalendar(day) ? at.toISOString() : written;
}

/** A day to come, as it stands in a calendar. */
export const Day = (): PropertyDecorator => {
  const message = 'A day looks like 2026-12-24';
  return all(IsISO8601({ strict: true, strictSeparator: true }, { message }), Matches(/^\d{4}-\d\d-\d\d$/, { message }));
};

/** An object of a class of its own. */
export const ObjectOf = (message: string, type: () => ClassConstructor<object>): PropertyDecorator =>
  all(IsObject({ message }), ValidateNested({ message }), Type(type));

/** A list of objects of one class, of a length within bounds. */
export const ObjectsOf = (what: string, least: number, most: number, type: () => ClassConstructor<object>): PropertyDecorator =>
  all(
    ListOf(what, least, most),
    IsObject({ each: true, message: `${what} are objects` }),
    ValidateNested({ each: true, message: `${what} are objects` }),
    Type(type),
  );

/** Checks of plain fields that may be left out, by their table. */
export const PlainFields =
  (fields: Readonly<Record<string, Plain>>): ClassDecorator =>
  ({ prototype }) => {
    for (const [name, field] of Object.entries(fields)) {
      const what = `${field.called.charAt(0).toUpperCase()}${field.called.slice(1)}`;
      const checks =
        field.is === 'text'
          ? [Note(what, field.longest)]
          : [IsInt({ message: `${what} is a whole number` }), Within(what, field.least, field.most)];
      for (const check of [Optional(), ...checks]) check(prototype as object, name);
    }
  };
