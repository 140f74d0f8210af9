import { z } from 'zod';
import { templateSchema } from './template.ts';

/** A layout of posts that was kept under a name, to be taken on the desk and by lanes. */
export const keptLayoutSchema = z.object({
  id: z.string(),
  name: z.string(),
  template: templateSchema
});
export type KeptLayout = z.infer<typeof keptLayoutSchema>;
