import { DAY_MS, daySaid, layerPartOf, learntFrom, lyingOn, windowSaid, type Lying } from '@dusk/core';
import { storyOf, type AreaDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { laidOfTubes, logOf } from '../log/log.ts';
import { areaRows } from '../paintings/areas.ts';
import { settingsRows } from '../settings/settings.ts';
import { tubeRows } from '../tubes/tubes.ts';
import { dayOf } from './contents.ts';
import { BODY, HEAD, SMALL, type Flow } from './flow.ts';
import { drawTitle } from './mixtures.ts';

/** An area as it stands on paper: what was done, and when its newest layer is dry. */
export interface AreaOnPaper {
  readonly area: AreaDto;
  readonly top: Lying | undefined;
  /** What was done, a line each, the first first. */
  readonly lines: readonly string[];
}

/** Less of a tube than this is not named. */
const NAMED = 0.02;

/** Areas of a painting with what was laid there, as the page of the log tells it. */
export async function areasOnPaper(db: EntityManager, paintingId: string, zone: string): Promise<AreaOnPaper[]> {
  const areas = await areaRows(db, { paintingIds: [paintingId] });
  // What was felt of any painting tells of this one's tubes and room.
  const log = await logOf(db);
  const laid = new Map([...log.laid, ...(await laidOfTubes(db, [paintingId]))].map(({ deedId, parts }) => [deedId, parts]));
  const tubes = new Map((await tubeRows(db)).map((tube) => [tube.id, tube]));
  const [settings] = await settingsRows(db);
  const partOf = (tubeId: string, share: number) => {
    const tube = tubes.get(tubeId);
    return tube ? [layerPartOf(tube, share)] : [];
  };
  const toldOf = (area: AreaDto) => storyOf(area, laid, partOf, settings?.temperatureC ?? undefined);
  const elsewhere = (log.rows.areas ?? []).filter((area) => area.paintingId !== paintingId);
  const stories = areas.map(toldOf);
  const lying = lyingOn(stories, learntFrom([...stories, ...elsewhere.map(toldOf)]));
  return areas.map((area) => ({
    area,
    top: lying.filter(({ areaId }) => areaId === area.id).at(-1),
    lines: area.deeds.map(({ id, kind, at, laid: how, touch }) => {
      const of = (laid.get(id) ?? [])
        .filter(({ share }) => share >= NAMED)
        .sort((one, other) => other.share - one.share)
        .map(({ tubeId }) => tubes.get(tubeId)?.name ?? 'a tube');
      const said = [
        how?.how,
        how?.with && `with ${how.with}`,
        of.length > 0 && `of ${of.join(', ')}`,
        how?.against && `(though ${how.against})`,
      ];
      const did = kind === 'touched' ? `felt ${touch}` : [kind, ...(kind === 'laid' ? said : [])].filter(Boolean).join(' ');
      return `${dayOf(at, zone)}: ${did}`;
    }),
  }));
}

const NAME_MM = 42;
const BAR_MM = 5;
const SHOWN_DAYS = 21;
const WEEK = 7;
const WORD_MM = 20;

/** What dries when, on one page: each area with a bar from when it may be dry to when it surely is. */
export function drawDrying(flow: Flow, title: string, areas: readonly AreaOnPaper[], now: number, zone: string): void {
  const { paper, left, room } = flow;
  const today = dayOf(new Date(now).toISOString(), zone);
  drawTitle(flow, `What dries when: ${title}`, [`As of ${today}. Rules of thumb and what was felt; a touch beats them.`]);
  const right = left + room;
  const x = (at: number): number =>
    left + NAME_MM + (Math.min(SHOWN_DAYS, Math.max(0, (at - now) / DAY_MS)) / SHOWN_DAYS) * (room - NAME_MM);
  for (let day = 0; day <= SHOWN_DAYS; day += WEEK) {
    const at = now + day * DAY_MS;
    paper.line(daySaid(at, now, zone), Math.min(x(at), right - WORD_MM), flow.y, SMALL);
  }
  flow.gap(6);
  for (const { area, top, lines } of areas) {
    flow.need(16);
    paper.rule(left, flow.y, right, flow.y, 0.3);
    flow.gap(1);
    paper.line(area.name, left, flow.y, HEAD);
    if (top) {
      const [from, to] = top.touchDry.map(x) as [number, number];
      paper.field(left + NAME_MM, flow.y, Math.max(0, from - left - NAME_MM), BAR_MM, '#e4e0da');
      paper.field(from, flow.y, Math.max(0.5, to - from), BAR_MM, '#a39d94');
      paper.field(to, flow.y, Math.max(0, right - to), BAR_MM, '#3b3733');
    }
    flow.gap(BAR_MM + 1.5);
    const dry = top && `dry to the touch ${windowSaid(top.touchDry, now, zone)}; through ${windowSaid(top.throughDry, now, zone)}`;
    flow.text(dry ?? 'nothing laid yet', BODY);
    flow.text(lines.at(-1) ?? '', SMALL);
    flow.gap(1.5);
  }
}

/** The layers of a painting in the order of the work, as a lesson tells them. */
export function drawLayers(flow: Flow, areas: readonly AreaOnPaper[]): void {
  const told = areas.filter(({ lines }) => lines.length > 0);
  if (told.length === 0) return;
  flow.need(20);
  flow.gap(2);
  flow.text('In layers', HEAD);
  for (const { area, lines } of told) {
    flow.need(12);
    flow.text(area.name, BODY);
    for (const line of lines) flow.text(line, SMALL, flow.left + 6);
  }
}
