/** What several layouts have. */
import { z } from 'zod';
import { angle, length } from '../fields.ts';

/** From one member to the next, or from the first to the last. */
const spacingBy = (number: typeof length) =>
  z.union([z.strictObject({ pitch: number('Pitch') }), z.strictObject({ span: number('Span') })]);
/** mm. */
export const lengthSpacing = () => spacingBy(length);
/** Degrees. */
export const angleSpacing = () => spacingBy(angle);
export type Spacing = z.infer<ReturnType<typeof lengthSpacing>>;

/** Members turn with the curve or ring, or keep the attitude of the source. */
export const attitude = z.enum(['turning', 'keeping']);
