import { ASKING } from './strides-asking';
import { CODEBOOK } from './strides-codebook';
import { MATERIAL } from './strides-material';
import { MEDIA } from './strides-media';
import { READING } from './strides-reading';
import { WRITING } from './strides-writing';
import { WAYS } from './strides-ways';
import type { Walk } from './wanderer';

/** Something a researcher does in one go, from wherever they are. */
export interface Stride {
  readonly name: string;
  readonly weight: number;
  go(walk: Walk): Promise<void>;
}

export const STRIDES: readonly Stride[] = [...READING, ...CODEBOOK, ...MATERIAL, ...MEDIA, ...WRITING, ...ASKING, ...WAYS];
