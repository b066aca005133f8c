// Which rooms a room may know: those on the floors beneath its own. Rooms of one floor do not know each other.
const FLOORS = {
  core: [
    ['colour'],
    ['paint'],
    ['mixing'],
    ['landing'],
    ['laying'],
    ['measuring'],
    ['matching'],
    ['correcting', 'families', 'reference'],
    ['calibration', 'deciding', 'painting', 'palettes'],
    ['formats'],
  ],
  server: [
    ['entities', 'migrations', 'refusing'],
    ['file'],
    ['change'],
    ['tubes'],
    ['deeds', 'settings', 'palettes', 'paintings', 'pictures'],
    ['beliefs'],
    ['piles'],
    ['cards', 'log'],
    ['sheets', 'studio'],
    ['routes'],
  ],
  web: [
    ['floor'],
    ['studio', 'engine'],
    ['stores'],
    ['controls', 'chips'],
    ['recipe', 'picture', 'tubes', 'printing', 'waiting', 'paintings'],
    ['deciding'],
    ['correcting', 'remaking', 'kin', 'strings', 'outing', 'easel', 'palettes', 'reference', 'landing', 'day'],
    ['pile', 'cards', 'log'],
    ['piles'],
    ['frame'],
  ],
};

/** What each room must not import, as patterns of `no-restricted-imports`. */
export const roomsOf = (workspace) =>
  (FLOORS[workspace] ?? []).flatMap((floor, at, floors) =>
    floor.map((room) => ({
      room,
      pattern: {
        regex: `^(\\.\\./)+(${floors
          .slice(at)
          .flat()
          .filter((other) => other !== room)
          .concat('nothing')
          .join('|')})/`,
        message: `${room} stands beneath that room, or beside it (eslint.rooms.js, docs/ARCHITECTURE.md).`,
      },
    })),
  );
