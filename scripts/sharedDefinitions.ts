/**
 * Shapes that stand in several places of a schema are written once, under `$defs`, and referred to: a rig document
 * is a third of a job and of two commands, and was spelled out in each.
 */
type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** Characters of JSON under which a shape is shorter than the reference to it is worth. */
const MIN_LENGTH = 160;

/** Keys whose members are schemas by name: the names are no part of the shape. */
const isShape = (value: Json): value is { [key: string]: Json } =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && ('type' in value || 'anyOf' in value);

/**
 * The schemas with every repeated shape replaced by a `$ref`, and those shapes by name.
 * @param prefix what a reference begins with: `#/$defs/` inside one file, `shared#/$defs/` across several
 */
export function sharedDefinitions<K extends string>(
  schemas: Readonly<Record<K, unknown>>,
  prefix: string,
): { schemas: Record<K, Json>; defs: Record<string, Json> } {
  // Through JSON: symbols that the schema builder leaves on its objects are no part of the format.
  const plain = JSON.parse(JSON.stringify(schemas)) as Record<K, Json>;
  const seen = new Map<string, { times: number; name: string }>();
  const count = (value: Json, name: string): void => {
    if (typeof value !== 'object' || value === null) return;
    if (isShape(value)) {
      const text = JSON.stringify(value);
      const known = seen.get(text);
      if (known) {
        known.times++;
        return;
      }
      if (text.length >= MIN_LENGTH) seen.set(text, { times: 1, name });
    }
    for (const [key, inner] of Object.entries(value))
      count(inner, /^(properties|items|anyOf|patternProperties|additionalProperties|\d+|\^.*)$/.test(key) ? name : key);
  };
  for (const key of Object.keys(plain) as K[]) count(plain[key], key);

  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const [text, { times, name }] of seen) {
    if (times < 2) continue;
    const base = name.replace(/[^A-Za-z0-9]+/g, '-');
    let free = base;
    for (let n = 2; taken.has(free); n++) free = `${base}-${n}`;
    taken.add(free);
    names.set(text, free);
  }
  const defs: Record<string, Json> = {};
  const replaced = (value: Json, asItself = false): Json => {
    if (typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) return value.map((v) => replaced(v));
    const text = JSON.stringify(value);
    const name = asItself ? undefined : names.get(text);
    if (name !== undefined) {
      if (!(name in defs)) {
        defs[name] = {};
        defs[name] = replaced(value, true);
      }
      return { $ref: `${prefix}${name}` };
    }
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, replaced(v)]));
  };
  const out = Object.fromEntries((Object.keys(plain) as K[]).map((k) => [k, replaced(plain[k], true)]));
  return { schemas: out as Record<K, Json>, defs };
}
