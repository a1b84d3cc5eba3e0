import { z } from 'zod';
import { Layout } from '@alforja/core';
import { codec } from '../codec.ts';

export const looksCodec = codec('look of a document', z.array(z.string()));
export const layoutCodec = codec<Layout>('layout of a document', Layout);
