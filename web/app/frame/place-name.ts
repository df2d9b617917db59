const parts: Readonly<Record<string, string>> = {
  plate: 'Plate', scheme: 'Scheme', decisions: 'decision', adopted: 'plan', scripts: 'script', deviations: 'as built', motor: 'motor', supply: 'supply', load: 'load', cable: 'cable', pins: 'terminal',
  wires: 'wire', settings: 'setting', devices: 'device', assignments: 'terminal', links: 'link', retired: 'retired wire', tag: 'tag', machine: 'machine', siteId: 'site', practice: 'practice', profile: 'device',
}; // prettier-ignore

/**
 * A place in the job as a person says it, from its JSON Pointer.
 *
 * @example placeName('/plate/motor/power') // 'Plate › motor › power'
 */
export function placeName(pointer: string): string {
  if (pointer === '') return 'whole job';
  return pointer
    .slice(1)
    .split('/')
    .map((raw) => raw.replaceAll('~1', '/').replaceAll('~0', '~'))
    .map((part) => parts[part] ?? part)
    .join(' › ');
}
