import { dropUnsaved, keepUnsaved, readUnsaved } from '$lib/data/unsaved.ts';
import { z } from 'zod';

const textsSchema = z.record(z.string(), z.string()).catch({});

/**
 * Fields of a form that is not sent yet: what was typed is there again after a reload. Never for
 * keys. To be called while the component is set up.
 * @param name of the form; it begins anew with another
 */
export function typed<T extends Record<string, string>>(name: () => string, empty: T) {
  let fields = $state<T>({ ...empty });
  let shown = '';
  const load = (wanted: string) => {
    shown = wanted;
    fields = { ...empty, ...textsSchema.parse(readUnsaved(`form/${wanted}`)) };
  };
  load(name());
  $effect.pre(() => {
    const wanted = name();
    if (wanted !== shown) load(wanted);
  });
  $effect(() => {
    const texts = $state.snapshot(fields) as T;
    if (Object.values(texts).some(Boolean)) keepUnsaved(`form/${shown}`, texts);
    else dropUnsaved(`form/${shown}`);
  });
  return {
    get fields() {
      return fields;
    },
    clear: () => {
      fields = { ...empty };
    }
  };
}
