export { CHANNELS, type Channel, mixed, partOf, primariesOf } from './attributes/blend.ts';
export { type BodyMesh, type BodyRuns, bodyMesh } from './attributes/bodySurface.ts';
export {
  blurOf,
  FREQUENCY_METHODS,
  type FrequencyMethod,
  type FrequencySpec,
  smearOf,
} from './attributes/frequency.ts';
export { peaksOf, type Spectra, threeFrequencies, tuningThickness } from './attributes/spectrum.ts';
export {
  bandAt,
  type Density,
  densityOf,
  fitLine,
  inRing,
  type LineFit,
  type PlotWindow,
  selected,
} from './crossplot/points.ts';
export { trendsFor } from './crossplot/trends.ts';
export * from './earth/binGrid.ts';
export * from './earth/crs.ts';
export { DATUM_SHIFTS, type DatumShift } from './earth/datumShifts.ts';
export { alongRoute, type DatumRoute, datumOf, datumRoute } from './earth/datums.ts';
export { type Units, unitsOf } from './earth/display.ts';
export * from './earth/errors.ts';
export * from './earth/objects.ts';
export * from './earth/quantities.ts';
export { visible } from './earth/text.ts';
export * from './earth/transform.ts';
export * from './earth/units.ts';
export { flagged } from './engine/lanes.ts';
export { inThread, inThreads, type JobRunner, type LaneMessage, type LaneThread, laneOf } from './engine/runner.ts';
export { METHODS, type Method, type Validation } from './facies/classifier.ts';
export {
  type CutDown,
  type CutPiece,
  closedBy,
  cutDown,
  matchByThrow,
  pairAcross,
  type SectionSamples,
  type ThrowMatch,
} from './faults/close.ts';
export { type Kamb, kambDensity, offNet, roseOf, toNet } from './faults/net.ts';
export {
  angleBetween,
  meanOrientation,
  type Orientation,
  ofPole,
  poleOf,
} from './faults/orientation.ts';
export { planeOfFault } from './faults/plane.ts';
export { cutByLine, type Mesh, meshOfSticks } from './faults/surface.ts';
export type { Around } from './files/context.ts';
export { crsOf, frameFor } from './files/coordinates.ts';
export { inspectFile, type Looking } from './files/inspect.ts';
export { type LoadContext, type Loaded, loadFile } from './files/load.ts';
export { matchNames, nearestName, wellNames } from './files/names.ts';
export { exportFormats, exportObject, exportParts, extensionOf } from './files/out/export.ts';
export type { OutOptions } from './files/out/out.ts';
export { recognise } from './files/recognise.ts';
export type * from './files/report.ts';
export { type HeaderTable, headerTable, TRACE_FIELDS } from './formats/segy/headerTable.ts';
export { type ByteSource, blobSource, memorySource } from './formats/source.ts';
export { withoutControls, xmlText } from './formats/xml.ts';
export { contourInterval, contourSegments, joinedSegments } from './horizons/contour.ts';
export { type EventKind, snap, type Traces } from './horizons/event.ts';
export { type FollowOptions, followEvent, type OnSection } from './horizons/follow.ts';
export { type Bin, followOnSlice, type Wall, walledOff } from './horizons/followSlice.ts';
export { gridAt } from './horizons/grid.ts';
export { PICK_EVENTS, type PickEvent, snapTo } from './horizons/pick.ts';
export { relief } from './horizons/relief.ts';
export { type Lobe, netOf, type PayScale, scaleByGreatest, scaleByWells, sumsOfPay } from './inversion/netPay.ts';
export { CURVE_ANGLES, weights as rotationWeights } from './inversion/rotation.ts';
export type { Wedge } from './inversion/wedge.ts';
export { tuningOf } from './inversion/wedge.ts';
export type { AnyKind, Fact, KindOf } from './kinds/define.ts';
export { allKinds, forgetKind, kindNamed, kindOf, registerKind } from './kinds/index.ts';
export { cubicBetween } from './numerics/cubic.ts';
export { extentOf } from './numerics/extent.ts';
export { insideRings } from './numerics/rings.ts';
export { RunningStatistics } from './numerics/statistics.ts';
export { channelsOf } from './project/blends.ts';
export { byBody } from './project/bodies.ts';
export { bytesOf, dependents, finder } from './project/catalogue/catalogue.ts';
export { asideOf, factsOf, type Listed, listObjects } from './project/catalogue/facts.ts';
export { findObject } from './project/catalogue/find.ts';
export { outOfDate } from './project/catalogue/staleness.ts';
export {
  FACIES,
  type PlotPoints,
  type PlotRequest,
  plotPoints,
  selectedIntervals,
  within,
} from './project/crossplot.ts';
export { drawn, type Given, isByHand, newDrawn } from './project/given.ts';
export { type NearGrid, nearGrid } from './project/grids.ts';
export { type Crossing, crossings, distances, meetings, pathOfLine } from './project/lines.ts';
export * from './project/make.ts';
export type { WellPay } from './project/netPay.ts';
export { type PlacedBin, placedAt, placedLike, placedVolume } from './project/place.ts';
export { attached, type Declarable, reclassed, redatumed, redeclared, toSi } from './project/redeclare.ts';
export { mapBetween, placeOf, previewReframe, type Reframing, reframed, relabelBetween } from './project/reframe.ts';
export { frequencyGather, type SpectrumScope, spectraOf } from './project/spectra.ts';
export { anglesOf, namedLikeStack, type Stack, stackSetOf, stacksOf, waveletsOf, withAngle } from './project/stacks.ts';
export { shownUnits } from './project/units.ts';
export { velocityAt } from './project/velocityAt.ts';
export { modelParts, VELOCITIES } from './project/velocityModel.ts';
export * from './project/wells/carry.ts';
export { shotDepths } from './project/wells/checkshots.ts';
export {
  checkOrder,
  columnOfTops,
  stratigraphyOf,
  topsBeside,
  UNIT_COLORS,
  withSurface,
  withTop,
  withUnits,
} from './project/wells/column.ts';
export * from './project/wells/curves.ts';
export * from './project/wells/facies.ts';
export * from './project/wells/names.ts';
export * from './project/wells/painting.ts';
export { relationOf, type TopInTime, topInTime } from './project/wells/seeds.ts';
export { newTable, putTop, removeTop, renameTop, type TopEdit } from './project/wells/tops.ts';
export * from './project/wells/wells.ts';
export { valuesOn } from './project/windows.ts';
export { REFLECTION, type ReflectionForm } from './rocks/reflect.ts';
export * from './steps/index.ts';
export * from './storage/arrays.ts';
export { checkedChange } from './storage/commit.ts';
export * from './storage/cube.ts';
export { damagesOf } from './storage/damage.ts';
export { heldBytes } from './storage/keys.ts';
export { memoryStore } from './storage/memory.ts';
export { type ParcelOptions, readParcel, writeParcel } from './storage/parcel.ts';
export * from './storage/planes.ts';
export { type Aside, factsSchema, ledgerEntrySchema, readProject, sortOut } from './storage/projectFile.ts';
export * from './storage/store.ts';
export * from './storage/volumes.ts';
export type { Knee } from './tie/calibrate.ts';
export { type Pin, shiftThrough } from './tie/warp.ts';
export { type WaveletShape, waveletSpectrum } from './tie/wavelet.ts';
export { askedInputs, madeTogether, rebuild, rebuildOrder } from './trail/rebuild.ts';
export { parseRecipe, type Recipe } from './trail/recipe.ts';
export { followTop, renamed } from './trail/rename.ts';
export { runRecipe } from './trail/runRecipe.ts';
export { type Run, runOf, runsOf } from './trail/runs.ts';
export { projectRecipe, recipeOf } from './trail/writeRecipe.ts';
export { type Column, columnOf, depthOfTime, timeOfDepth, velocityOfTime } from './velocity/column.ts';
export { columnsAlong, columnsOver, type Even, evenIn } from './velocity/even.ts';
export { MEAN_OF } from './velocity/interval.ts';
export { LAW_FORMS, type Law, type LawForm, lawInWords, scaled } from './velocity/law.ts';
export { type Model, type ModelParts, modelOf } from './velocity/model.ts';
export { nearestOnPath } from './velocity/nodes.ts';
export { turned, turnedTraces, turnerOf } from './velocity/turn.ts';
export { type Sampled, sampleAt } from './wells/edit.ts';
export { FUNCTION_NAMES } from './wells/formula.ts';
export { partsOfFormula, troublesOfFormula } from './wells/formulaText.ts';
export { type PathPoint, pointAtMd, type WellPath, wellPath } from './wells/path.ts';
export { quantile } from './wells/petrophysics.ts';
export { depthOfTwt, fromCheckshots, type TimeDepth, twtOfDepth } from './wells/timeDepth.ts';
