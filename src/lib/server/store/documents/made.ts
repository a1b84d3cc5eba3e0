import { Draft } from '@alforja/core';
import { codec } from '../codec.ts';

export const draftCodec = codec<Draft>('thing that is made here', Draft);
