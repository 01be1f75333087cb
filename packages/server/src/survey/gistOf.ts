import { SurveyGistView, SurveyView } from '@wanderon/contract';

/** Findings of a survey that fit a line. */
const SAID = 2;

/** A survey in a few numbers and words, for a table of many. */
export function gistOf(survey: Omit<SurveyView, 'id'>, dnsHost: string | undefined): SurveyGistView {
  const grave = survey.findings.filter((finding) => finding.weight !== 'note');
  const registration = survey.registration?.kind === 'found' ? survey.registration.registration : undefined;
  return {
    grade: survey.coverage.grade,
    sets: survey.sets.length,
    stops: survey.findings.filter((finding) => finding.weight === 'stop').length,
    looks: survey.findings.filter((finding) => finding.weight === 'look').length,
    hints: survey.hints.length,
    fronted: survey.sets.filter((set) => set.fronted !== null && set.stored === null).length,
    varying: survey.sets.filter((set) => set.varying !== null).length,
    conflicts: survey.sets.filter((set) => set.evidence.some((one) => one.absent || one.data !== null)).length,
    dnsHost: dnsHost ?? null,
    registrar: registration?.registrar ?? null,
    expires: registration?.expires ?? null,
    said: grave.slice(0, SAID).map((finding) => finding.text),
  };
}
