/** The stages of a job in their order: names of their pages, and what digits open. */
export const stageNames = [
  'plate',
  'scheme',
  'land',
  'key',
  'rehearse',
  'dead',
  'live',
  'handover',
] as const;
export type StageName = (typeof stageNames)[number];
