import { holdsLimit } from '@/core/machine/integrity';
import { sayDecontamination, sayDusts, sayLevel } from '@/messages/dust';
import { INTEGRITY_WORDS } from '@/messages/integrity';
import { sayPercent } from '@/messages/job';
import { type Maker, type LogEntry, plainEntry } from './log-entry';

export const screeningEntries = (maker: Maker): readonly LogEntry[] => {
  const { machine } = maker.bench.status;
  return machine.stages.flatMap((s) =>
    s.proven.map((c, i) =>
      plainEntry(
        {
          key: `screening-${s.id}-${i}`,
          at: c.at,
          by: c.by,
          title: `Screening of the ${s.name}: ${INTEGRITY_WORDS[c.test].name.toLowerCase()}, ${c.passed ? 'nothing found' : 'failed'}`,
          text: c.passed ? 'Screening can fail a filter. It does not prove a class.' : 'Repair it and screen again.',
          note: c.note,
        },
        maker,
      ),
    ),
  );
};

export const proofEntries = (maker: Maker): readonly LogEntry[] => {
  const { machine } = maker.bench.status;
  return [
    ...machine.penetration.map((t) =>
      plainEntry(
        {
          key: `penetration-${t.id}`,
          at: t.at,
          by: t.by,
          title: `Penetration test: ${sayPercent(t.share)} passed, ${holdsLimit(t) ? 'within' : 'above'} the ${sayPercent(t.limit)} of its class`,
          text: `${t.tester}, ${t.method}, certificate ${t.certificate}, tested ${t.testedOn}.${t.nextDueOn === null ? '' : ` Next due ${t.nextDueOn}.`}`,
        },
        maker,
      ),
    ),
    ...machine.examinations.map((e, i) =>
      plainEntry(
        {
          key: `examination-${i}`,
          at: e.at,
          by: e.by,
          title: `Examined by ${e.examiner}`,
          text: `On ${e.on}. ${e.found}`,
        },
        maker,
      ),
    ),
  ];
};

export const dustEntries = (maker: Maker): readonly LogEntry[] => {
  const { dust } = maker.bench.status.machine;
  const href = `/m/${encodeURIComponent(maker.bench.status.machine.tag)}/dust`;
  return [
    ...dust.collected.flatMap(({ said, standing }) =>
      said
        ? [
            plainEntry(
              {
                key: `dust-${said.id}`,
                at: said.at,
                by: said.by,
                title: `Collected: ${said.text}`,
                text: `${sayDusts(standing)} ${sayLevel(standing)}`,
                href,
              },
              maker,
            ),
          ]
        : [],
    ),
    ...(dust.last
      ? [
          plainEntry(
            {
              key: `clean-${dust.last.id}`,
              at: dust.last.at,
              by: dust.last.by,
              title: 'Decontaminated',
              text: sayDecontamination(dust.last),
              href,
            },
            maker,
          ),
        ]
      : []),
  ];
};
