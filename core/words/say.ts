import type { Finding, Phrase } from '../job/index.js';
import {
  conditions,
  conflicts,
  markNames,
  openPlaces,
  reasons,
  schools,
  wishNames,
} from './circuit-english.js';
import { findings, phrases, severities } from './english.js';
import { cautions } from './procedure-names.js';
import { names } from './names-english.js';
import type { Args } from './numbers.js';
import { requirementFindings } from './requirements-english.js';

/** A finding in words. */
export interface Saying {
  readonly what: string;
  readonly why: string;
  readonly remedy: string;
}

const allFindings: Readonly<Record<string, (a: Args) => Saying>> = {
  ...findings,
  ...requirementFindings,
};

/** What a finding says: what, why, and what to do. */
export function sayFinding(finding: Finding): Saying {
  return allFindings[finding.rule]?.(finding.args) ?? { what: finding.rule, why: '', remedy: '' };
}

/** Every rule that has words. */
export const findingRules: readonly string[] = Object.keys(allFindings);

/** What a severity asks for. */
export const saySeverity = (severity: Finding['severity']): string => severities[severity];

/** A phrase of the core as a sentence. */
export function say({ code, args }: Phrase): string {
  return phrases[code]?.(args) ?? code;
}

/** A state or value as words; itself where it has none. */
export function sayName(name: string): string {
  return names[name] ?? name;
}

export function sayCaution(code: string): string {
  return cautions[code] ?? code;
}

/** Why wishes exclude each other: the wishes by name, then the reason. */
export function sayConflict(code: string, wishes: readonly string[], what: string): string {
  const named = wishes.map((wish) => wishNames[wish] ?? wish).join(' + ');
  return `${named ? `${named[0].toUpperCase()}${named.slice(1)}: ` : ''}${conflicts[code]?.(names[what] ?? what) ?? what}`;
}

/**
 * Why there is no plan, in words: a conflict of wishes, or what the device's profile lacks.
 *
 * @param offers devices that can do what this one cannot
 */
export function sayNoPlan(
  plan: {
    readonly why: string;
    readonly path: string;
    readonly what: string;
    readonly code?: string;
    readonly wishes?: readonly string[];
  },
  offers: readonly { readonly title: string; readonly model: string }[] = [],
): string {
  if (plan.code) {
    const instead = offers.map(({ title, model }) => `${title} ${model}`).join(', ');
    const said = sayConflict(plan.code, plan.wishes ?? [], plan.what);
    return instead ? `${said} These can do all that is wished here: ${instead}.` : said;
  }
  if (plan.why === 'unknownModel')
    return `The profile of this device has no model “${plan.what}”. Choose another model on the Plate stage.`;
  return `The profile of this device is not complete: ${plan.what} is missing. Complete it in the library, or choose another device.`;
}

/** A question on which practitioners differ, or one of its schools. */
export const saySchool = (question: string, school?: string): string =>
  schools[school ? `${question}.${school}` : question] ?? school ?? question;

/** Why a school is recommended. */
export const sayReason = (code: string): string => reasons[code] ?? code;

/** A mark of a standard script. */
export const sayMark = (code: string): string => markNames[code] ?? code;

/** A condition for running, as it stands. */
export function sayCondition(code: string, met: boolean, args: Args): string {
  const said = conditions[code]?.(args);
  return said ? (met ? said.met : said.unmet) : code;
}

/** An open place on the way of a circuit. */
export const sayOpenPlace = (code: string, args: Args): string => openPlaces[code]?.(args) ?? code;
