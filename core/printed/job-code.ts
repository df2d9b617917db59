/**
 * What the codes on labels and on the record lead to: the job on the server it is kept on, and the revision that was printed.
 *
 * @param base address of the application
 * @example jobCode('0d3f…', 4, 'https://panel.example/') // 'https://panel.example/jobs/0d3f…?revision=4'
 */
export const jobCode = (jobId: string, revision: number, base: string): string =>
  new URL(`jobs/${jobId}?revision=${revision}`, base).href;
