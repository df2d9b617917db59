import { usualRoles } from '@tactron/core/job';
import type { Api } from '../../../job-state/api';

const keyOf = (siteId: string): string => `tactron.roles.${siteId}`;

/** Roles that close a record of a site: as the server has them, else as it had them last, else the usual ones. */
export async function rolesOf(siteId: string, api: Api): Promise<readonly string[]> {
  try {
    const { document } = await api.siteDocument(siteId);
    localStorage.setItem(keyOf(siteId), JSON.stringify(document.requiredRoles));
  } catch {
    // Not reached now: what was known last stands.
  }
  const known = JSON.parse(localStorage.getItem(keyOf(siteId)) ?? '[]') as string[];
  return known.length > 0 ? known : usualRoles;
}
