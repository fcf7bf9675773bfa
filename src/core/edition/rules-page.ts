import { AREAS, forWhom } from '../reading/rules/rule.ts';
import { RULES } from '../reading/rules/index.ts';
import { SOURCES } from '../style/bibliography.ts';
import { PERIODS, PROFILES, strengthIn } from '../style/profiles.ts';
import { SCHOOLS, type School } from '../style/schools.ts';

const cell = (text: string): string => text.replace(/\|/g, '\\|');
const cited = (keys: readonly (keyof typeof SOURCES)[]): string => keys.map((k) => SOURCES[k].short).join('; ');

/** All rules and questions of school with their sources, as a Markdown page. */
export function rulesPage(): string {
  const lines = ['# Rules, schools and sources', '', 'Made from the data by `npm run rules`; not written by hand.', ''];
  for (const area of AREAS) {
    lines.push(
      `## ${area[0].toUpperCase()}${area.slice(1)}`,
      '',
      '| rule | looks at | proposes | strength by period | sources |',
      '|---|---|---|---|---|'
    );
    for (const r of RULES.filter((x) => x.area === area)) {
      const strengths = PERIODS.flatMap((p) => {
        const s = strengthIn(r.periods, p);
        return s === null ? [] : [`${PROFILES[p].name} ${s}`];
      }).join(', ');
      lines.push(
        `| ${cell(r.title)} (\`${r.id}\`) | ${cell(r.looksAt)} | ${cell(r.proposes)} | ${strengths}${forWhom(r)} | ${cited(r.sources)} |`
      );
    }
    lines.push('');
  }
  lines.push('## Questions of school', '');
  for (const school of SCHOOLS as readonly School[]) {
    lines.push(`### ${school.question} (\`${school.key}\`)`, '');
    for (const o of school.options) lines.push(`- \`${o.value}\`: **${o.label}**. ${o.reason} (${cited(o.sources)})`);
    lines.push('');
  }
  lines.push('## Sources', '');
  for (const s of Object.values(SOURCES) as { short: string; full: string; fromMemory?: true }[])
    lines.push(`- ${s.short}: ${s.full}${s.fromMemory ? ' (pages from memory)' : ''}`);
  return lines.join('\n') + '\n';
}
