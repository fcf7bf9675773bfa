/** What the edition critic finds in drafts and in the composers' own signs, and what rules claim falsely, as JSON, for the bench. */
import { claimsOf } from '../tests/unit/reading/critic/claims.ts';
import { inAll, measureDrafts } from '../tests/unit/reading/critic/measure.ts';
import { SCORES } from '../tests/unit/reading/critic/scores.ts';

console.log(JSON.stringify({ ...inAll(measureDrafts()), claims: claimsOf(SCORES) }));
