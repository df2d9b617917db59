import type { Finding, Phrase } from '../job/index.js';
import { cautions, findings, names, phrases } from './english.js';

/** A finding in words. */
export interface Saying {
  readonly what: string;
  readonly why: string;
  readonly remedy: string;
}

/** What a finding says: what, why, and what to do. */
export function sayFinding(finding: Finding): Saying {
  return findings[finding.rule]?.(finding.args) ?? { what: finding.rule, why: '', remedy: '' };
}

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
