import { expect, type Locator, type Page } from '@playwright/test';
import type { Evidence, Job } from '@tactron/core/job';
import {
  answerUpTo,
  keyEverything,
  readEverythingBack,
  saved,
  settled,
  signEveryRole,
  stage,
} from './helpers';

/** What a person does from *new job* on: things entered, and touches. */
export class Hand {
  facts = 0;
  touches = 0;

  constructor(readonly page: Page) {}

  async touch(what: Locator): Promise<void> {
    await what.click();
    this.touches++;
  }

  /** A fact that is typed costs a touch of its field; one that is chosen from a list costs two. */
  async enter(field: Locator, text: string): Promise<void> {
    await field.fill(text);
    await field.press('Tab');
    this.facts++;
    this.touches++;
  }

  async choose(list: Locator, label: RegExp): Promise<void> {
    const option = list.locator('option', { hasText: label }).first();
    await list.selectOption((await option.getAttribute('value')) as string);
    this.facts++;
    this.touches += 2;
  }

  async wish(group: string, answer: string | RegExp): Promise<void> {
    const answers = this.page.getByRole('radiogroup', { name: group, exact: true });
    await this.touch(answers.getByRole('radio', { name: answer, exact: true }));
    this.facts++;
  }
}

/** An arrangement as most of them are: its family, what is wished in the words of the page, the ohms of a dial. */
export interface SimpleJob {
  readonly name: string;
  readonly family: RegExp;
  readonly wishes: readonly (readonly [group: string, answer: string | RegExp])[];
  readonly dial?: string;
}

const forward = ['Which way', 'forward only'] as const;

/** Six arrangements as most of them are. */
export const simpleJobs: readonly SimpleJob[] = [
  {
    name: 'one selector',
    family: /Marrowick F/u,
    wishes: [
      ['It starts and stops by', 'a contact that stays closed (two-wire)'],
      ['Start given by', 'selector 0–1'],
      forward,
      ['Speed from', 'keypad of the device'],
    ],
  },
  {
    name: 'a maintained button with the dial of the device',
    family: /Ondulet micro/u,
    wishes: [
      ['It starts and stops by', 'a contact that stays closed (two-wire)'],
      ['Start given by', 'maintained button'],
      forward,
      ['Speed from', 'dial of the device'],
    ],
  },
  {
    name: 'start and stop',
    family: /Marrowick F/u,
    wishes: [
      ['It starts and stops by', 'start and stop button (three-wire)'],
      ['Station wiring', 'start and stop fed separately'],
      forward,
      ['Speed from', 'keypad of the device'],
    ],
  },
  {
    name: 'a dial only',
    family: /Marrowick F/u,
    wishes: [
      ['It starts and stops by', 'the keypad'],
      forward,
      ['Speed from', 'dial at the station'],
    ],
    dial: '5',
  },
  {
    name: 'two directions',
    family: /Marrowick F/u,
    wishes: [
      ['It starts and stops by', 'a contact that stays closed (two-wire)'],
      ['Start given by', 'selector 0–1'],
      ['Which way', 'forward and reverse'],
      ['Direction given by', /^one selector/u],
      ['Speed from', 'keypad of the device'],
    ],
  },
  {
    name: 'a start contact with 0 … 10 V',
    family: /Ondulet N/u,
    wishes: [
      ['It starts and stops by', 'a controller'],
      ['The controller switches with', /relay/u],
      forward,
      ['Speed from', 'controller, 0–10 V'],
    ],
  },
];

/** From the board to a new job whose panel card stands on the page. */
export async function toPanelCard(hand: Hand, { family, wishes, dial }: SimpleJob): Promise<void> {
  const { page } = hand;
  await hand.touch(page.getByRole('button', { name: 'New job' }));
  await hand.enter(page.getByRole('textbox', { name: 'Tag' }), 'FM-SIMPLE');
  await hand.choose(page.locator('select[name=family]'), family);
  await hand.touch(page.getByRole('button', { name: 'Make the job' }));
  await expect(page.getByRole('heading', { name: 'FM-SIMPLE' })).toBeVisible();
  await hand.touch(stage(page, 'Scheme'));
  for (const [group, answer] of wishes) await hand.wish(group, answer);
  if (dial) await hand.enter(page.getByLabel('Dial', { exact: true }), dial);
  await settled(page);
  await hand.touch(stage(page, 'Land'));
  await hand.touch(page.getByRole('link', { name: 'Terminals and panel card' }));
  const card = page.getByRole('table', { name: 'Control terminals' });
  await expect(card.getByRole('row').nth(1)).toBeVisible({ timeout: 60_000 });
}

/** What was asked of the person at the panel until the record is signed. */
export interface Asked {
  readonly dead: number;
  readonly liveActs: number;
  readonly declarations: number;
}

/** From the panel card to the signed record: dead checks, keying, live tests, both signatures by one person. */
export async function toSigned(page: Page): Promise<Asked> {
  await stage(page, 'Dead').click();
  await answerUpTo(page);
  await stage(page, 'Key').click();
  await keyEverything(page);
  await readEverythingBack(page);
  await page.getByRole('button', { name: 'Keep as left' }).click();
  await stage(page, 'Live').click();
  await answerUpTo(page);
  await stage(page, 'Hand over').click();
  await signEveryRole(page);
  await saved(page);
  return asked((await fileOf(page)).evidence);
}

/** What was asked, counted in the evidence itself. */
function asked(evidence: readonly Evidence[]): Asked {
  const readings = evidence.flatMap((e) => (e.kind === 'reading' ? [e] : []));
  const dead = readings.filter((r) => r.subject.startsWith('dead.'));
  const live = readings.filter((r) => !r.subject.startsWith('dead.'));
  return {
    dead: dead.length,
    liveActs: new Set(live.map((r) => r.body.step.act)).size,
    declarations: evidence.filter((e) => e.kind === 'isolation').length,
  };
}

/** The file of the open job as the server keeps it. */
export async function fileOf(page: Page): Promise<{ job: Job; evidence: readonly Evidence[] }> {
  const id = /jobs\/([^/]+)/u.exec(page.url())?.[1];
  const file = await page.request.get(new URL(`/api/jobs/${id}/file`, page.url()).href);
  return (await file.json()) as { job: Job; evidence: readonly Evidence[] };
}
