/** Writes docs/rules.md from the rules' own data: `npm run rules`. A test holds the file against the data. */
import { writeFileSync } from 'node:fs';
import { rulesPage } from '../src/core/edition/rules-page.ts';

writeFileSync('docs/rules.md', rulesPage());
