import * as v from 'valibot';
import halewickR from './families/halewick-r.json' with { type: 'json' };
import marrowickF from './families/marrowick-f.json' with { type: 'json' };
import onduletMicro from './families/ondulet-micro.json' with { type: 'json' };
import onduletN from './families/ondulet-n.json' with { type: 'json' };
import pendriftC from './families/pendrift-c.json' with { type: 'json' };
import pendriftS from './families/pendrift-s.json' with { type: 'json' };
import quernstoneT from './families/quernstone-t.json' with { type: 'json' };
import wendleS from './families/wendle-s.json' with { type: 'json' };
import { profileSchema, type Profile } from './profile.js';

/** The profiles that come with Tactron, unparsed, by family. */
export const shippedProfiles: Readonly<Record<string, unknown>> = {
  'halewick-r': halewickR,
  'marrowick-f': marrowickF,
  'ondulet-micro': onduletMicro,
  'ondulet-n': onduletN,
  'pendrift-c': pendriftC,
  'pendrift-s': pendriftS,
  'quernstone-t': quernstoneT,
  'wendle-s': wendleS,
};

const parsed = new Map<string, Profile>();

/**
 * A shipped profile, checked against the schema.
 *
 * @throws RangeError when there is no such family
 * @example shippedProfile('marrowick-f').title // "Marrowick F"
 */
export function shippedProfile(family: string): Profile {
  if (!(family in shippedProfiles)) throw new RangeError(`there is no shipped profile "${family}"`);
  const known = parsed.get(family);
  if (known) return known;
  const profile = v.parse(profileSchema, shippedProfiles[family]);
  parsed.set(family, profile);
  return profile;
}
