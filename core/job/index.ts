export {
  takenOut,
  temporaryKinds,
  temporaryRegister,
  testValuesIn,
  type Temporary,
  type TemporaryKind,
} from './temporary.js';
export { attachmentsOf } from './attachment.js';
export { handLine, lineOf, standing, tickOf, type Standing, type Ticked } from './hand-tick.js';
export {
  arrivedAfter,
  contentHashOf,
  signable,
  signingOf,
  standsAsFrozen,
  usualRoles,
  type Signing,
} from './signing.js';
export {
  isolationNow,
  isolationStates,
  shiftEnd,
  standingIsolations,
  type Isolation,
  type IsolationState,
} from './isolation.js';
export {
  punchCategories,
  punchClosed,
  punchList,
  punchOf,
  type PunchCategory,
  type PunchPoint,
} from './punch.js';
export { changeHash, evidenceHash, verifyEvidence, type ChainCheck } from './chain.js';
export {
  envelopeSchema,
  pathIssues,
  readEnvelope,
  type Envelope,
  type FileRead,
  type PathIssue,
} from './envelope.js';
export {
  attachmentTypes,
  authorSchema,
  evidenceSchema,
  isOfLaterRelease,
  readingTold,
  supersededBy,
  MAX_ATTACHMENT_BYTES,
  type Author,
  type Evidence,
  type EvidenceBody,
  type EvidenceKind,
  type EvidenceOf,
  type ReadingTold,
} from './evidence.js';
export {
  expectationSchema,
  expectedAt,
  isOpenEnded,
  liveSections,
  stepSchema,
  unbalancePctOf,
  verdictOf,
  verdictOfStep,
  type DisplaySeen,
  type Expectation,
  type LiveSection,
  type Phrase,
  type ProcedureStep,
  type Sees,
  type ShaftSeen,
} from './step.js';
export { holdOf, neverPassedOver, passedOver } from './holds.js';
export {
  instrumentDoubt,
  instrumentFor,
  instrumentKinds,
  instrumentSchema,
  type Instrument,
  type InstrumentDoubt,
  type InstrumentKind,
} from './instrument.js';
export { readingDoubt, type Doubt } from './doubt.js';
export { faultKey, faultSchema, partFailures, type Fault, type FaultKind } from './fault.js';
export { jsonBytes, MAX_EVIDENCE_BYTES, MAX_JOB_BYTES, unfit } from './fit.js';
export { findingKey, type Finding, type Rank, type Where } from './finding.js';
export { hashOf, hashOfBytes } from './hash.js';
export {
  actSchema,
  emptyJob,
  jobSchema,
  keypadKeys,
  JOB_VERSION,
  landingName,
  landingParts,
  scriptSchema,
  timeOrder,
  wireClasses,
  wiringSchema,
  type Act,
  type Adopted,
  type AdoptedWire,
  type Job,
  type Script,
  type StatedOtherwise,
  type WireSpec,
  type Wiring,
} from './job.js';
export {
  applyPatch,
  disjoint,
  invertPatch,
  patchBetween,
  patchSchema,
  PatchError,
  replayPatches,
  valueAt,
  type Operation,
  type Patch,
} from './patch.js';
export {
  plateSchema,
  type ControlSupplies,
  type Line,
  type LineBlock,
  type Load,
  type MotorPlate,
  type Place,
  type Plate,
  type Supply,
} from './plate.js';
export { quantity, sizeSchema, sizeText, type Size } from './quantities.js';
export { schemeSchema, type Scheme } from './scheme.js';
export {
  checkSeal,
  isSigned,
  keyName,
  proofs,
  sealedText,
  sealSchema,
  type Origin,
  type Proof,
  type Seal,
  type SealCheck,
} from './seal.js';
export { snapshotOf } from './snapshot.js';
export { sortedEntries } from './sorted-entries.js';
export { CORE_VERSION } from './version.js';
export { upgradeJob, upgradePatch } from './upgrade.js';
export { emptySite, siteSchema, type SiteDocument } from './site.js';
export { exchangeLeads, TURNED_WHY, type LeadExchange } from './motor-leads.js';
export {
  mostTolerance,
  sameTolerances,
  toleranceNames,
  tolerancesOf,
  tolerancesSchema,
  toleranceUnit,
  usualTolerances,
  type OwnTolerances,
  type ToleranceName,
  type Tolerances,
  type ToleranceUnit,
} from './tolerances.js';
