import {
  liveSections,
  type DisplaySeen,
  type Expectation,
  type LiveSection,
  type Phrase,
  type ProcedureStep,
  type Sees,
  type ShaftSeen,
  type StatedOtherwise,
} from '../../job/index.js';
import type { OperationId } from '../../scheme/index.js';
import type { HookPlace } from '../../installation/index.js';
import { isMomentary } from '../../parts/index.js';
import {
  basisOf,
  kindOf,
  operationOf,
  phrase,
  positionOf,
  tagsOf,
  whileSwitchingOn,
  type StepContext,
  type Worked,
} from '../context.js';
import { statedOtherwise } from '../../hazards/index.js';
import { displayNow, type ReadsAt } from './display.js';
import { marked } from '../marks.js';
import { Sequence, type Hooked, type Rest } from './sequence.js';

/** What is asked at a moment of an act. */
export interface Asked {
  readonly key: string;
  readonly do: Phrase;
  readonly must: Phrase;
  readonly expect: Expectation;
  readonly instrument?: string;
  /** Required function that the answer shows; then `expect` is what is required, and `seen` what the machine does. */
  readonly requirement?: string;
  readonly seen?: string;
  readonly cautions?: readonly string[];
  readonly fields?: readonly string[];
  readonly sees?: Sees;
  /** What of the device is read for it. */
  readonly reads?: ReadsAt;
  /** What of the device is read for it, where it is neither of these. */
  readonly display?: DisplaySeen;
  readonly unbalancePct?: number;
  /** Where the expected value comes from, if not from this act. */
  readonly from?: ProcedureStep['from'];
}

/** What an answer rests on: parts that are worked, the dial, the supply. */
export type RestsOn = readonly (Worked | 'dial' | 'supply' | 'motor')[];

type Draft = { -readonly [K in keyof ProcedureStep]: ProcedureStep[K] };

/** For how long at least nothing changes while somebody looks, ms. */
const LOOK_MS = 50;

/** Sections in which the machine has not yet been seen to turn as it should. */
const untried = liveSections.slice(0, liveSections.indexOf('bump') + 1);

/** Acts with the power branch still open. */
const beforePower: readonly string[] = ['supply.volts', 'supply.rotation'];

/** The answers that are asked while one person does the acts of the live tests, each with what was done for it. */
export class LiveTests {
  readonly s: Sequence;
  private readonly made: Draft[] = [];
  private lookedMs = 0;
  private shaft: ShaftSeen = { turns: 'rest', hz: 0 };
  private told = 0;
  /** Whether something that may make the motor run is given in this act. */
  private runGiven = false;

  /** @param hooks places to which a jumper or a source may be put in these tests */
  constructor(
    readonly c: StepContext,
    hooks: readonly HookPlace[] = [],
  ) {
    this.s = new Sequence(c, hooks);
  }

  get steps(): ProcedureStep[] {
    return this.made;
  }

  /** Begins an act: the speed is set first, with the machine at rest. */
  begin(act: string, section: LiveSection, share?: number): Sequence {
    const { s } = this;
    this.lookedMs = s.nowMs;
    this.shaft = s.nowMs === 0 ? this.shaft : s.shaft;
    this.told = 0;
    this.runGiven = false;
    s.begin(act, section);
    if (share !== undefined) s.speed.set(share);
    return s;
  }

  /** Says that a run is asked for in this act, although nothing may turn. */
  asksForRun(): void {
    this.runGiven = true;
  }

  /** Asks for what is to be seen now. */
  ask(asked: Asked, restsOn: RestsOn): void {
    const { s, c } = this;
    const { act, section, acts } = s.current;
    const stated = !c.section && asked.requirement && statedOtherwise(c.job, asked.requirement);
    const {
      requirement,
      seen,
      cautions = [],
      from,
      fields,
      reads,
      ...rest
    } = stated ? withoutRequirement(asked, stated) : c.section ? ofSection(asked) : asked;
    const shaftAfter = s.shaft;
    const moved = s.movedSince(this.lookedMs) || this.shaft.turns !== 'rest';
    const display = reads && displayNow(c, s, reads);
    const held = requirement === undefined ? undefined : this.held(requirement, rest.expect, seen);
    this.made.push({
      ...rest,
      part: 'live',
      needs: [],
      cautions: [...this.cautionsOf(section, moved), ...cautions],
      from: held?.from ?? from ?? this.fromHere(),
      ...this.isolation(act),
      ...(held ? { requirement: held.requirement } : {}),
      act,
      section,
      acts: acts.slice(this.told),
      shaftBefore: this.shaft,
      shaftAfter,
      // What a contact that protects shows while others are missing counts for nothing once they are there.
      basis: basisOf(
        c,
        rest,
        restsOn,
        c.section && section === 'contacts' ? 'section' : held?.requirement.unmet,
      ),
      ...(fields ? { fields: [...fields] } : {}),
      ...(display ? { display } : {}),
    });
    this.told = acts.length;
    this.lookedMs = s.nowMs;
    this.shaft = shaftAfter;
    // Nothing else is done at the very moment at which it is looked at.
    s.wait(LOOK_MS);
  }

  private cautionsOf(section: LiveSection, moved: boolean): string[] {
    if (moved) return untried.includes(section) ? ['turns', 'freeToTurn'] : ['turns'];
    const still = this.s.holds.length > 0 || this.s.branchOff;
    return this.runGiven && !still ? ['cannotRun'] : [];
  }

  /** What has to be declared for an act: links are looked at before anything is switched on. */
  private isolation(act: string): Pick<ProcedureStep, 'isolation'> {
    if (act === 'links') return {};
    if (beforePower.includes(act)) return { isolation: whileSwitchingOn(this.c) };
    return { isolation: this.s.branchOff ? 'CONTROL LIVE' : 'MAIN LIVE' };
  }

  private fromHere(): ProcedureStep['from'] {
    const { s } = this;
    const atUs = Math.round(s.trialMs(s.nowMs) * 1000);
    return { kind: 'simulation', script: `live.${s.current.act}`, atUs };
  }

  /** A required function: whether the job has it, and what shows it where it has not. */
  private held(id: string, expect: Expectation, seen: string | undefined) {
    const unmet = this.c.unmet.get(id);
    if (unmet) {
      const from = unmet.proof ? { kind: 'simulation' as const, ...unmet.proof } : undefined;
      return { requirement: { id, unmet: unmet.does }, from };
    }
    const differs = seen !== undefined && expect.kind === 'state' && expect.is !== seen;
    return { requirement: { id, ...(differs ? { unmet: doesOf(this.s.shaft) } : {}) } };
  }

  /** Ends the act with the machine at rest, and says how. */
  end(): void {
    const { s } = this;
    const from = s.nowMs;
    const stoodBefore = !s.movedSince(from);
    const rest = s.end();
    const last = this.made.at(-1);
    if (!last || last.act !== s.current.act) return;
    const then = restPhrase(this.c, rest);
    if (then) last.then = then;
    const starts = s.feedings(s.current.beginsMs);
    const first = this.made.find((step) => step.act === last.act);
    if (starts > 0 && first) first.starts = starts;
    // What is let go may move the motor once more: it is said before, not found out.
    if (s.movedSince(from) && !last.cautions.includes('turns')) last.cautions.push('turns');
    if (stoodBefore && s.movedSince(from)) last.cautions.push('movesAtEnd');
    last.acts = [...(last.acts ?? []), ...s.current.acts.slice(this.told)];
  }
}

/** What is asked where a person states that the function is not required: what this job does. */
function withoutRequirement(asked: Asked, stated: StatedOtherwise): Asked {
  const { requirement: _requirement, seen, ...rest } = asked;
  if (seen === undefined || rest.expect.kind !== 'state' || rest.expect.is === seen) return rest;
  return {
    ...rest,
    expect: { kind: 'state', is: seen },
    must: phrase('stated', { is: seen, by: stated.by, role: stated.role, why: stated.why }),
    cautions: [
      ...(rest.cautions ?? []),
      ...(seen === 'startsByItself' ? ['automaticRestart'] : []),
    ],
  };
}

/** While a part of the wires is missing nothing is required of it: what it does meanwhile is what is expected. */
function ofSection(asked: Asked): Asked {
  const { requirement: _requirement, seen, ...rest } = asked;
  return seen === undefined ? rest : { ...rest, expect: { kind: 'state', is: seen } };
}

const doesOf = ({ turns }: ShaftSeen): string =>
  turns === 'rest' ? 'stands' : turns === 'forward' ? 'runsForward' : 'runsReverse';

/** What was put to two landings in place of a control, and the wire that was lifted for it. */
function hookedArgs(c: StepContext, hooked: Hooked | undefined): Phrase['args'] {
  if (!hooked) return {};
  const wire = hooked.lifted === undefined ? undefined : c.job.adopted?.wires[hooked.lifted];
  const places = `${marked(c, hooked.a)}–${marked(c, hooked.b)}`;
  return hooked.as === 'short'
    ? { jumper: places }
    : { source: places, lifted: wire?.number ?? '', at: marked(c, hooked.a) };
}

/** How an act ends, as a phrase; undefined where nothing has to be done. */
function restPhrase(
  c: StepContext,
  { letGo, stop, lowered, fault, power: again, powerOff, hooked }: Rest,
): Phrase | undefined {
  if (
    letGo.length === 0 &&
    !stop &&
    fault === undefined &&
    !powerOff &&
    !lowered &&
    !again &&
    !hooked
  )
    return undefined;
  const { power, estop, mainBreaker } = c.arrangement;
  const tags = (is: (id: OperationId) => boolean): string => tagsOf(c, letGo.filter(is)).join(', ');
  const momentary = (id: OperationId): boolean => {
    const worked = operationOf(c, id);
    return worked === undefined || isMomentary(kindOf(c, worked)?.kind ?? '');
  };
  // A process or a controller closes and opens its contact; nobody turns it back.
  const closes = (id: OperationId): boolean => {
    const worked = operationOf(c, id);
    return worked !== undefined && positionOf(c, worked) === 'closed';
  };
  return phrase('rest', {
    ...hookedArgs(c, hooked),
    letGo: tags((id) => id !== estop && momentary(id)),
    letOpen: tags((id) => id !== estop && !momentary(id) && closes(id)),
    putBack: tags((id) => id !== estop && !momentary(id) && !closes(id)),
    twistOut: tags((id) => id === estop),
    stop: stop === undefined ? '' : stop === 'key' ? 'key' : (tagsOf(c, [stop])[0] ?? ''),
    lowered: lowered ? tagsOf(c, ['down']).join('') : '',
    fault: fault ?? '',
    code: fault ? (c.profile.faults[fault]?.code ?? '') : '',
    breaker: powerOff ? (tagsOf(c, [], [mainBreaker])[0] ?? '') : '',
    power:
      power && (again || letGo.some((id) => id === estop || id === power.off))
        ? (tagsOf(c, [power.on])[0] ?? '')
        : '',
  });
}
