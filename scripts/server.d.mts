import type { ChildProcess } from 'node:child_process';

export function startServer(options: {
  port: number;
  data: string;
  quiet?: boolean;
  inside?: string | null;
  smtp?: string | null;
}): Promise<{ child: ChildProcess; base: string }>;
