/** What the edition critic finds in drafts and in the composers' own signs, as JSON, for the bench. */
import { inAll, measureDrafts } from '../tests/unit/reading/critic/measure.ts';

console.log(JSON.stringify(inAll(measureDrafts())));
