import { shown } from '../slip';
import { unescaped } from '../text';

/** A name as people read it, without the marks of zone files: `\@.choir.example.` → `@.choir.example`. */
export const showsAs = (name: string): string => unescaped(shown(name));
