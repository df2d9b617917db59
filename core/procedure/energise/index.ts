import {
  hashOf,
  type Act,
  type Expectation,
  type ProcedureStep,
  type ShaftSeen,
} from '../../job/index.js';
import { Engine } from '../../rehearsal/index.js';
import { actsOf, give, take } from '../../scheme/index.js';
import type { Trial } from '../../trials/index.js';
import {
  basisOf,
  phrase,
  range,
  state,
  tagOf,
  tagsOf,
  whileSwitchingOn,
  type StepContext,
} from '../context.js';
import { marked } from '../marks.js';
import { Watched } from '../sequence/watched.js';

/** Time after which all that a supply wakes has woken, ms. */
const WAKES_MS = 3000;
/** A supply that nothing loads yet is higher, above all behind a transformer. */
const UNLOADED_SHARE = 0.15;
/** Voltage that is none, V. */
const NO_VOLTS = 1;

/** A job's supply switched on from its source, branch by branch, on a machine of its own. */
class Tree extends Watched {
  private readonly log: Act[] = [];
  private told = 0;

  constructor(c: StepContext) {
    super(c, new Engine(c.trials.installed({ share: 0 })));
  }

  work(acts: readonly Act[], lastsMs: number): void {
    const timed = acts.map((act) => ({ ...act, atMs: this.nowMs + act.atMs }));
    this.log.push(...timed);
    this.nowMs += lastsMs;
    this.engine.runTo(
      this.nowMs * 1000,
      timed.map((act) => ({ t: act.atMs * 1000, act })),
    );
  }

  /**
   * Parts that have pulled in or light, and the device where it has woken. Contactors and brakes are none of them: they act
   * for a run, or for power that is asked for, and if one acts by itself here that is no answer to expect.
   *
   * @param all tell of those too
   */
  awake(all = false): string[] {
    const { installation, device, job } = this.c;
    // What only transforms or feeds is measured, not seen.
    const parts = installation.devices.flatMap(({ kind, id }) => {
      if (kind === 'supply' || kind === 'power') return [];
      const moves = id.startsWith('contactor.') || job.adopted?.devices[id]?.kind === 'brake';
      return (all || !moves) && (this.isOn(id) === true || this.isLit(id)) ? [id] : [];
    });
    return this.state === 'off' ? parts : [...parts, device.id];
  }

  /** What was done since this was asked for last. */
  done(): Act[] {
    const acts = this.log.slice(this.told);
    this.told = this.log.length;
    return acts;
  }

  get trial(): Trial {
    return {
      id: 'live.energise',
      acts: this.log,
      keypad: { share: 0 },
      phases: [],
      endMs: this.nowMs,
    };
  }
}

/** Where the voltage of a branch of the control is measured: as far from its breaker as nothing but protection lies between. */
function outputsOf({ installation }: StepContext, breaker: string): [string, string][] {
  const supply = breaker.replace('breaker.', '');
  const pairs: [string, string][] = [
    [`fuse.${supply}:2`, `transformer.${supply}:S2`],
    [`${supply}:+`, `${supply}:-`],
    [`${breaker}:2`, `${breaker}:4`],
  ];
  return pairs.filter((pair) => pair.every((at) => installation.landings.includes(at)));
}

const turned = (device: string, position: 'on' | 'off'): Act => ({
  do: 'turn',
  atMs: 0,
  device,
  position,
});

/** Steps of switching on for the first time. */
export interface Energise {
  readonly steps: readonly ProcedureStep[];
  readonly trial: Trial;
}

/** Makes the steps one by one, each with what the tree shows after it. */
class Steps {
  readonly made: ProcedureStep[] = [];
  private before: readonly string[] = [];
  private shaft: ShaftSeen = { turns: 'rest', hz: 0 };

  constructor(
    private readonly c: StepContext,
    private readonly tree: Tree,
    private readonly all: boolean,
  ) {}

  ask(
    key: string,
    said: Pick<ProcedureStep, 'do' | 'must'>,
    expect: Expectation,
    more: Partial<ProcedureStep> = {},
  ): void {
    const { c, tree } = this;
    const step = { key: `energise.${key}`, ...said, expect };
    this.made.push({
      ...step,
      part: 'energise',
      section: 'energise',
      act: 'energise',
      needs: [],
      cautions: [],
      from: {
        kind: 'simulation',
        script: tree.trial.id,
        atUs: Math.round(tree.nowMs * 1000),
      },
      basis: hashOf([basisOf(c, step, ['supply']), tree.awake()]),
      isolation: whileSwitchingOn(c),
      acts: tree.done(),
      shaftBefore: this.shaft,
      shaftAfter: tree.shaft,
      ...more,
    });
    this.shaft = tree.shaft;
    tree.work([], 50);
  }

  /** What may happen when something is switched on: nothing, or these parts and no other. */
  nothingBut(key: string, said: ProcedureStep['do']): void {
    const { c, tree } = this;
    const now = tree.awake(this.all);
    const woken = now.filter((id) => !this.before.includes(id)).map((id) => tagOf(c, id));
    const gone = this.before.filter((id) => !now.includes(id)).map((id) => tagOf(c, id));
    this.before = now;
    const quiet = woken.length + gone.length === 0;
    const args = { ...said.args, parts: woken.join(', '), gone: gone.join(', ') };
    this.ask(
      key,
      { do: said, must: phrase(quiet ? 'energise.nothing' : 'energise.only', args) },
      state(quiet ? 'nothingHappens' : 'onlyThese'),
      { cautions: ['openAgain'] },
    );
  }
}

/**
 * Switching on for the first time: everything open, the disconnecting device, then each branch of the control, the power
 * branch last; or, where the job says so, from the load end: each branch with nothing behind it, the disconnecting device
 * after them, and all readings then. At each step what wakes and what is measured comes from the
 * simulation of this wiring; where nothing wakes, *nothing happens* is what is expected.
 *
 * @param all tell of contactors and brakes that act by themselves too: what happens, not what may be expected
 * @example energiseOf(c).steps.map((s) => s.key) // ['energise.ready', 'energise.source', 'energise.breaker.control', …]
 */
export function energiseOf(c: StepContext, all = false): Energise {
  const { arrangement: a } = c;
  const tree = new Tree(c);
  const steps = new Steps(c, tree, all);
  const own = a.ownBreakers.filter((id) => isThere(c, id));
  const branches = [a.mainBreaker, ...own];
  const head = c.section ? undefined : a.estop;
  const dial = a.dial !== undefined && isThere(c, a.dial) ? a.dial : undefined;
  const args = {
    open: branches.map((id) => tagOf(c, id)).join(', '),
    estop: tagsOf(c, head ? [head] : []).join(''),
    off: a.isolator ? tagOf(c, a.isolator) : '',
    dial: dial ? tagOf(c, dial) : '',
  };
  tree.work(
    [
      ...[...(a.isolator ? [a.isolator] : []), ...branches].map((id) => turned(id, 'off')),
      ...actsOf(give(a, head, 0)),
      ...(dial ? [{ do: 'dial' as const, atMs: 0, device: dial, to: 0 }] : []),
    ],
    500,
  );
  steps.ask(
    'ready',
    { do: phrase('energise.ready', args), must: phrase('energise.ready.must') },
    state('done'),
    {
      isolation: undefined,
      cautions: ['freeToTurn', 'switchingOn'],
      from: { kind: 'standard', name: 'EN 50110-1 §6.2.7, before a supply is switched on again' },
    },
  );
  const source = (said: string, more: ProcedureStep['do']['args'] = {}): void => {
    tree.work(
      [{ do: 'supplyOn', atMs: 0 }, ...(a.isolator ? [turned(a.isolator, 'on')] : [])],
      WAKES_MS,
    );
    steps.nothingBut('source', phrase(said, { ...args, ...more }));
  };
  if (own.length > 0 && c.job.decisions.energise === 'loadFirst') {
    for (const breaker of own) {
      tree.work([turned(breaker, 'on')], WAKES_MS);
      steps.nothingBut(
        breaker,
        phrase('energise.branchDead', { breaker: tagOf(c, breaker), off: args.off }),
      );
    }
    const still = branches.filter((id) => !own.includes(id)).map((id) => tagOf(c, id));
    source('energise.sourceLast', { open: still.join(', ') });
    for (const breaker of own) branchVolts(c, tree, steps, breaker);
  } else {
    source('energise.source');
    for (const breaker of own) {
      tree.work([turned(breaker, 'on')], WAKES_MS);
      steps.nothingBut(breaker, phrase('energise.branch', { breaker: tagOf(c, breaker) }));
      branchVolts(c, tree, steps, breaker);
    }
  }
  if (head) {
    tree.work(actsOf(take(a, head, 0)), WAKES_MS);
    steps.nothingBut('estop', phrase('energise.estop', args));
  }
  return { steps: steps.made, trial: tree.trial };
}

/** While a part of the wires is missing, what none is landed at is not there. */
const isThere = ({ section, job }: StepContext, id: string): boolean =>
  !section ||
  Object.values(job.adopted?.wires ?? {}).some((w) =>
    [w.from, w.to].some((at) => at.startsWith(`${id}:`)),
  );

/** The voltage of one branch of the control. */
function branchVolts(c: StepContext, tree: Tree, steps: Steps, breaker: string): void {
  for (const [plus, minus] of outputsOf(c, breaker)) {
    const { landings } = c.installation;
    const seen = tree.volts(landings.indexOf(plus), landings.indexOf(minus));
    const ac = (seen?.ac ?? 0) > NO_VOLTS;
    const volts = (ac ? seen?.ac : seen?.dc) ?? 0;
    if (volts <= NO_VOLTS) continue;
    const expect = range(volts, volts * c.within.supplyShare, 'V');
    const hi = volts * (1 + UNLOADED_SHARE);
    steps.ask(
      `${breaker}.volts`,
      {
        do: phrase('energise.volts', { plus: marked(c, plus), minus: marked(c, minus), ac }),
        must: phrase('volts', { volts }),
      },
      expect.kind === 'range' && ac ? { ...expect, hi: Math.round(hi * 10) / 10 } : expect,
      {
        instrument: 'voltmeter',
        cautions: ['liveWork', 'category'],
        sees: { kind: 'volts', plus, minus, ac },
      },
    );
    return;
  }
}
