import type { Calculation, Working } from '../calculation/index.js';
import type { IdentificationWay, Profile, Value } from '../catalogue/index.js';
import type { Adopted, Evidence, EvidenceOf, Finding, Job, StatedOtherwise } from '../job/index.js';
import type { InsidePart } from '../faults/index.js';
import type { KeyingWay, KeyLine, KeyPress, LinkLine, PlanCost, TestValue } from '../plan/index.js';
import type { PlateFact } from '../line/index.js';
import type { Obstacle, SettingRow, StepRecord } from '../records/index.js';

/** A finding with its words, and the acceptance that covers it. */
export interface SaidFinding {
  readonly finding: Finding;
  readonly what: string;
  readonly why: string;
  readonly remedy: string;
  /** How much it asks for, in words. */
  readonly mark: string;
  readonly subject: string;
  readonly accepted: EvidenceOf<'acceptance'> | null;
  /** It may be accepted with a reason. */
  readonly acceptable: boolean;
}

/** A required function in words, and whether the job as built has it. */
export interface SaidRequirement {
  readonly id: string;
  readonly protects: boolean;
  readonly text: string;
  readonly state: 'met' | 'notMet' | 'undecided';
  /** What the job does where it is looked at, where that is not what it must. */
  readonly does: string;
  readonly proof: Finding['proof'];
  /** Who states that it is not required. */
  readonly stated: StatedOtherwise | null;
  /** A person may state so. */
  readonly mayBeStated: boolean;
  /** Nobody does it at the machine. */
  readonly simulatedOnly: boolean;
}

export interface SaidStep extends StepRecord {
  readonly do: string;
  readonly must: string;
  readonly cautions: readonly string[];
  /** What this job does instead of a required function, in words; empty where it has it. */
  readonly unmet: string;
  /** Short name of the act it belongs to, and of the part of the tests. */
  readonly title: string;
  readonly section: string;
  /** How the act ends, where something has to be done for it. */
  readonly then: string;
  /** What the device shows then: where it is read, what stands there, its lamps; null where it is not looked at. */
  readonly display: { readonly at: string; readonly shows: string; readonly lamps: string } | null;
  /** The shaft before and after, in words; empty where nothing was simulated. */
  readonly shaft: {
    readonly before: string;
    readonly between: string;
    readonly after: string;
  } | null;
  /** Places that are read, in words, by their codes. */
  readonly places: Readonly<Record<string, string>>;
  /** Words of the state it expects, and of the other answers that can be given. */
  readonly choices: readonly { readonly value: string; readonly name: string }[];
}

export interface SaidLine extends KeyLine {
  readonly name: string;
  readonly unit: string;
  readonly fromText: string;
  readonly toText: string;
  readonly reason: string;
  /** Where a dial or a switch has to stand; null for what is keyed. */
  readonly shape:
    | {
        readonly kind: 'dial';
        readonly min: number;
        readonly max: number;
        readonly unit: string;
        /** What its lowest mark means beside its number. */
        readonly note: string;
        readonly at: number;
      }
    | { readonly kind: 'switch'; readonly on: boolean }
    | null;
  readonly done: boolean;
  /** What the device says to it, and what to make of that; empty for most. */
  readonly said: string;
  /** How the device measures its motor, where that is the line. */
  readonly identify?: SaidIdentification;
}

/** An identification run at its keypad: how it is asked for, what it shows and leaves behind, why it may end early. */
export interface SaidIdentification {
  readonly ways: readonly {
    readonly id: IdentificationWay;
    readonly code: string;
    readonly to: string;
    readonly seconds: number;
    readonly uncoupled: boolean;
    readonly presses: readonly KeyPress[];
  }[];
  readonly startKey: string;
  readonly during: string;
  readonly done: string;
  readonly results: readonly {
    readonly code: string;
    readonly name: string;
    readonly unit: string;
    readonly min: number;
    readonly max: number;
    /** What the plate lets expect; absent where it does not tell enough. */
    readonly expected?: { readonly least: number; readonly nominal: number; readonly most: number };
  }[];
  readonly failures: readonly {
    readonly shown: string;
    readonly cause: string;
    readonly cure: string;
  }[];
}

export interface SaidRow extends SettingRow {
  /** Somebody relies on it: where command lies, what follows power, how it stops, overload, highest frequency. */
  readonly protects: boolean;
  /** Ends of what it takes, where it is a number. */
  readonly limits: { readonly min?: number; readonly max?: number };
  readonly factoryText: string;
  readonly foundText: string;
  readonly plannedText: string;
  readonly leftText: string;
  readonly choices: readonly { readonly value: Value; readonly name: string }[];
  readonly group: string;
  readonly reason: string;
}

/** Why there is no plan: the wishes that exclude each other, and the reason in words. */
export interface SaidConflict {
  readonly ok: false;
  readonly wishes: readonly string[];
  readonly text: string;
}

/** Everything a stage shows that is reckoned and not entered. Never stored. */
/** A setting for the tests, and what it is put back to. */
export type SaidTestValue = TestValue & {
  readonly name: string;
  readonly testText: string;
  readonly plannedText: string;
  /** It stands in the device now; else it is offered. */
  readonly held: boolean;
};

/** The analogue reference of a job, what it is to give, and the sheets that were read of it. */
export interface SaidLoop {
  /** Landing of the input; the landings of the two leads as they are marked. */
  readonly input: string;
  readonly at: readonly [string, string];
  readonly unit: 'V' | 'mA';
  readonly source: string;
  readonly controller: boolean;
  readonly rows: readonly {
    readonly pct: number;
    readonly up: boolean;
    readonly signal: number;
    readonly hz: number;
  }[];
  readonly sheets: readonly {
    readonly id: string;
    readonly author: string;
    readonly at: string;
    readonly points: readonly {
      readonly signal: number;
      readonly reads: number;
      readonly askedPct?: number;
      readonly rpm?: number;
    }[];
    readonly verdict: 'pass' | 'fail';
    readonly errorPct?: number;
    readonly hysteresisPct?: number;
    readonly sourcePct?: number;
    /** What puts it right, or why it gives no line. */
    readonly remedies: readonly string[];
  }[];
}

/** A signal between the panel and an outside controller, in words. */
export interface SaidSignal {
  readonly part: string;
  /** Place in the order of exchange; 0 for what is there all the time. */
  readonly order: number;
  readonly way: string;
  readonly does: string;
  readonly kind: string;
  readonly closed: string;
  readonly open: string;
  readonly unpowered: string;
  readonly ends: readonly string[];
}

/** A likely fault of the machine in use, in words. */
export interface SaidNight {
  readonly noticed: string;
  readonly likely: string;
  readonly look: string;
}

export interface Derived {
  readonly signals: readonly SaidSignal[];
  readonly loop: SaidLoop | null;
  readonly facts: readonly PlateFact[];
  readonly plate: { readonly needed: number; readonly missing: readonly string[] };
  readonly scheme: { readonly needed: number; readonly missing: readonly string[] };
  readonly findings: readonly SaidFinding[];
  readonly requirements: readonly SaidRequirement[];
  readonly plan:
    { readonly ok: true; readonly cost: PlanCost; readonly alternatives: number } | SaidConflict;
  readonly adoption: Adopted | null;
  /** What adopting the plan would change, in words; nothing where both are built the same. */
  readonly difference: readonly string[];
  /** What is to be keyed from what the device held when the session began; without a session, from what it holds now. */
  readonly lines: readonly SaidLine[];
  /** Settings that had to be changed, and those of them that the device holds now. */
  readonly keying: { readonly done: number; readonly of: number };
  /** Ways of keying what is due, setting by setting first; one where no ready-made arrangement saves anything. */
  readonly keyingWays: readonly KeyingWay[];
  readonly rows: readonly SaidRow[];
  /** Settings keyed for the tests: those that are in the device, else those that are offered. */
  readonly testValues: readonly SaidTestValue[];
  readonly steps: readonly SaidStep[];
  /** Inputs by a jumper or a calibrator before their controls: offered, and nothing waits for them. */
  readonly offered: readonly SaidStep[];
  /** Checks with everything isolated. */
  readonly dead: readonly SaidStep[];
  /** What has to be off and locked before the job is dead. */
  readonly sources: readonly {
    readonly tag: string;
    readonly what: string;
    /** A lock goes on it. */
    readonly locked: boolean;
  }[];
  /** Time after which the DC link has discharged, s, by the profile of the device; undefined where it has none. */
  readonly dischargeS: number | undefined;
  /** Landings whose way only a relay closes: not to be seen dead. */
  readonly notDead: readonly string[];
  /** The device changes the speed of its motor; a soft starter does not. */
  readonly speeds: boolean;
  /** It has an enable for each direction, where it does not change the speed. */
  readonly enables: boolean;
  /** The poles of the device can lie in series with the windings of the motor. */
  readonly insideDelta: boolean;
  /** Links and slide switches of the device, once a plan is adopted. */
  readonly links: readonly LinkLine[];
  /** What was found built otherwise than planned, in the order in which it was noted. */
  readonly asBuilt: readonly { readonly id: string; readonly text: string; readonly why: string }[];
  /** Terminals to which a wire can be moved: one that commands, one of the power. */
  readonly landings: { readonly control: readonly string[]; readonly power: readonly string[] };
  /** Everything that hands do, in order. */
  readonly hand: readonly HandLine[];
  /** What is fitted and what stays free: contact blocks by actuator, cores by cable, inputs. */
  readonly toFit: {
    readonly blocks: readonly {
      readonly tag: string;
      readonly text: string;
      readonly contacts: readonly {
        readonly a: string;
        readonly b: string;
        readonly makes: boolean;
      }[];
    }[];
    readonly cables: readonly { readonly cable: string; readonly text: string }[];
    readonly free: readonly string[];
    /** What inside the parts may be found not to work. */
    readonly fails: readonly { readonly fault: InsidePart; readonly text: string }[];
  };
  /** Only some wires are landed: the steps are those of what is there. `turns`: the motor can be turned from the keypad. */
  readonly section: { readonly landed: number; readonly turns: boolean } | null;
  /** Why there are no steps, where there are none. */
  readonly noTests: string;
  /** Readings of steps that the procedure has no more. */
  readonly past: readonly SaidStep[];
  readonly obstacles: readonly (Obstacle & { readonly text: string })[];
  /** Names of the person's values, for showing: states, links, classes. */
  readonly names: Readonly<Record<string, string>>;
}

/** A line of the hand list: a wire, or what is fitted, set, clamped or labelled. */
export interface HandLine {
  /** Of a wire its own id. */
  readonly id: string;
  /** What a tick names. */
  readonly line: string;
  /** Part of the work, and its heading. */
  readonly group: string;
  readonly title: string;
  readonly isWire: boolean;
  /** Tag of the part at which it is done; empty where it is all over the panel. */
  readonly at: string;
  readonly cable: string;
  /** What is done, where it is no wire; what the wire is for. */
  readonly text: string;
  /** Torque to tighten to; empty where the profile knows none. */
  readonly torque: string;
  /** Ferrule, strip length and torque, as far as they are known. */
  readonly fit: string;
}

/** A sheet to print, and the same as CSV. */
export interface PartsAndTools {
  readonly parts: readonly {
    readonly what: string;
    readonly tag: string;
    readonly quantity: string;
  }[];
  readonly tools: readonly { readonly what: string; readonly why: string }[];
  readonly csv: string;
}

export type { Calculation, Evidence, Job, Profile, Working };
