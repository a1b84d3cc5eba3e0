import type { Quoted } from '../compare/said.ts';
import type { Trouble, TroubleKind, TroubleSaidOf } from '../landing/trouble.ts';

/** Both sides of a trouble of the landing in words. */
export const sayTrouble = (t: Trouble): { readonly planned: string; readonly found: string } => ({
  planned: saySide(t.trouble, t.planned),
  found: saySide(t.trouble, t.found),
});

function saySide<K extends TroubleKind>(trouble: K, said: TroubleSaidOf[K] | Quoted): string {
  return 'words' in said ? said.words : SAY[trouble](said);
}

const inSection = (section: string | null): string => section ?? 'no section';

const SAY: { readonly [K in TroubleKind]: (said: TroubleSaidOf[K]) => string } = {
  section: ({ section }) => inSection(section),
  name: ({ title }) => title || 'no name',
  visibility: ({ hidden }) => (hidden ? 'hidden from students' : 'shown to students'),
  review: ({ review }) => review ?? 'not set',
  copy: ({ copies, section }) => (copies === 1 ? 'once' : `a second copy in ${inSection(section)}`),
  extra: ({ there, section }) => (there ? `in ${inSection(section)}` : 'nothing like it'),
  'not-there': ({ there, title }) => (there ? title : 'not in the outline of the course'),
  attachment: ({ to }) =>
    to.length === 0 ? 'not attached' : `attached to ${to.map((name) => `“${name}”`).join(', ')}`,
  locked: ({ locked }) => (locked ? 'locked, nobody can edit it' : 'can be edited'),
};
