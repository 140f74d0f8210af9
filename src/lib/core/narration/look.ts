import { z } from 'zod';
import { frameNameSchema, resolutionSchema } from './frames.ts';
import { styleSchema } from './styles.ts';

export const formatSchema = z.enum(['webm', 'mp4']);
export type Format = z.infer<typeof formatSchema>;

/** How a video looks and what kind of file it is. */
export const videoLookSchema = z.object({
  frame: frameNameSchema,
  resolution: resolutionSchema.default('720p'),
  style: styleSchema,
  format: formatSchema
});
export type VideoLook = z.infer<typeof videoLookSchema>;
