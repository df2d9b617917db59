import type { Model, Profile, SettingValues, Value } from '../catalogue/index.js';
import {
  brakingMatters,
  driveLogic,
  driveSpecOf,
  type DriveSpec,
  type LinkBraking,
} from '../drive/index.js';
import type { DeviceFacts, DeviceLogic, InstallFacts } from '../motor/index.js';
import {
  leastLimits,
  startBand,
  startCurves,
  startFacts,
  starterLogic,
  starterSpecOf,
  type StartBand,
  type StarterSpec,
  type StartFacts,
} from '../starter/index.js';

/** What a device's logic is made from: plain, so that it can be posted. */
export type LogicSpec = DriveSpec | StarterSpec;

type SpecMaker = (
  profile: Profile,
  model: Model,
  settings: SettingValues,
  facts: InstallFacts,
  policies?: Readonly<Record<string, Value>>,
) => { spec: LogicSpec; facts: DeviceFacts };

const specMakers: Readonly<Record<Profile['kind'], SpecMaker>> = {
  drive: driveSpecOf,
  starter: starterSpecOf,
};

const logics: Readonly<Record<LogicSpec['kind'], (spec: never) => unknown>> = {
  drive: driveLogic,
  starter: starterLogic,
};

/** What the logic of a profile's device goes by under its settings. */
export const specOf: SpecMaker = (profile, ...more) => specMakers[profile.kind](profile, ...more);

/** What comes of the start that is set; undefined for a device that changes the speed. */
export const startOf = ({
  spec,
  facts,
}: {
  readonly spec: LogicSpec;
  readonly facts: DeviceFacts;
}): StartFacts | undefined =>
  spec.kind === 'starter' ? startFacts(spec, facts.assumed) : undefined;

/** Times between which the start that is set ends; undefined for a device that changes the speed. */
export const startBandOf = ({ spec }: { readonly spec: LogicSpec }): StartBand | undefined =>
  spec.kind === 'starter' ? startBand(spec) : undefined;

/** Smallest current limits that start this load, with the strongest and the weakest torque of this plate, %; as `startBandOf`. */
export const leastLimitsOf = ({
  spec,
}: {
  readonly spec: LogicSpec;
}): readonly [number, number] | undefined =>
  spec.kind === 'starter' ? leastLimits(spec) : undefined;

/** The start that is set and the direct one, as curves; undefined for a device that changes the speed. */
export const startCurvesOf = ({
  spec,
}: {
  readonly spec: LogicSpec;
}): ReturnType<typeof startCurves> | undefined =>
  spec.kind === 'starter' ? startCurves(spec) : undefined;

/** What stops do to the DC link, where one lifts it; undefined otherwise, or where the mass is not known. */
export function linkOf({
  spec,
  inputs,
}: {
  readonly spec: LogicSpec;
  readonly inputs: readonly { readonly task: string }[];
}): LinkBraking | undefined {
  if (spec.kind !== 'drive' || !spec.link?.braking) return undefined;
  const tasks = inputs.map((i) => i.task);
  return brakingMatters(spec.control, spec.link.braking, tasks) ? spec.link.braking : undefined;
}

/** Logic of an installed device. */
export const logicOf = (spec: LogicSpec): DeviceLogic<unknown, unknown> =>
  logics[spec.kind](spec as never) as DeviceLogic<unknown, unknown>;
