export * from './errors.ts';
export * from './colour/spectrum.ts';
export * from './colour/spaces.ts';
export * from './colour/illuminants.ts';
export * from './colour/integrate.ts';
export * from './colour/difference.ts';
export * from './colour/value.ts';
export * from './colour/names.ts';
export * from './colour/temperature.ts';
export * from './colour/display.ts';
export * from './colour/adaptation.ts';
export * from './colour/smoothSpectrum.ts';
export * from './colour/munsell.ts';
export * from './paint/kubelkaMunk.ts';
export * from './paint/catalogue.ts';
export type { Drying, Lightfastness } from './paint/pigments/definition.ts';
export * from './paint/mix.ts';
export * from './paint/deviation.ts';
export * from './paint/trust.ts';
export * from './paint/viewing.ts';
export * from './colour/read.ts';
export * from './colour/written.ts';
export * from './colour/said.ts';
export * from './colour/nudge.ts';
export * from './colour/white.ts';
export * from './matching/limits.ts';
export * from './matching/palette.ts';
export * from './matching/ranking.ts';
export * from './matching/recipe.ts';
export * from './matching/solve.ts';
export * from './matching/propose.ts';
export * from './mixing/mixture.ts';
export * from './mixing/naming.ts';
export * from './mixing/open.ts';
export * from './mixing/order.ts';
export * from './mixing/steps.ts';
export * from './mixing/written.ts';
export * from './mixing/workOrder.ts';
export * from './mixing/chart.ts';
export * from './mixing/drying.ts';
export * from './mixing/remaining.ts';
export * from './mixing/predict.ts';
export { areaWarning, meanOf, readArea, readOutline, type AreaPart, type AreaReading } from './reference/area.ts';
export * from './reference/valueRange.ts';
export * from './reference/besidePatch.ts';
export * from './reference/pixels.ts';
export { D50_TO_D65, readProfile, type Profile } from './reference/profile.ts';
export type { DeviceTable } from './reference/profileTables.ts';
export * from './reference/outline.ts';
export * from './reference/light.ts';
export * from './reference/frame.ts';
export * from './reference/key.ts';
export * from './reference/glints.ts';
export * from './reference/zones.ts';
export * from './reference/compare.ts';
export * from './reference/lightPlane.ts';
export * from './reference/looks.ts';
export * from './reference/reachOver.ts';
export * from './paint/mixer.ts';
export * from './matching/polish.ts';
export * from './mixing/path.ts';
export * from './matching/relative.ts';
export * from './families/brush.ts';
export * from './families/commonHeap.ts';
export * from './families/intoAll.ts';
export * from './families/strings.ts';
export type { Family, Mother } from './families/mothers.ts';
export * from './families/pairs.ts';
export * from './families/neighbours.ts';
export * from './families/next.ts';
export * from './families/wishedString.ts';
export { HOLDS, type Hold } from './matching/sought.ts';
export * from './mixing/inPlace.ts';
export * from './matching/rederive.ts';
export * from './correcting/recall.ts';
export { believed, beliefOf, firstBeliefs, isSighting, onlyOf, type Beliefs, type TubeBelief } from './correcting/beliefs.ts';
export * from './correcting/cavity.ts';
export {
  afterEvidence,
  learn,
  knifeOf,
  KNIFE,
  FINEST_KNIFE,
  COARSEST_KNIFE,
  type Dose,
  type Evidence,
  type Learnt,
  type Stage,
} from './correcting/learn.ts';
export * from './correcting/additions.ts';
export * from './correcting/asSeen.ts';
export * from './correcting/doubt.ts';
export * from './correcting/throughStages.ts';
export * from './correcting/correction.ts';
export * from './matching/wishes.ts';
export { measuredAnew, type SqueezedOf } from './matching/anew.ts';
export * from './matching/inSteps.ts';
export * from './matching/find.ts';
export { DULLING, IN_REACH, WORTH, type Dulling } from './matching/worth.ts';
export * from './matching/outOfReach.ts';
export * from './mixing/amounts.ts';
export * from './mixing/hand.ts';
export * from './mixing/measures.ts';
export * from './mixing/words.ts';
export * from './formats/card.ts';
export * from './formats/cardFile.ts';
export * from './formats/cardTables.ts';
export * from './formats/folded.ts';
export * from './formats/foreignTubes.ts';
export * from './formats/outing.ts';
