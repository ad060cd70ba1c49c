import type { IntakeDetail } from '@mailbag/contract';
import type { IntakePlan, IntakeQuestion } from '@mailbag/core';
import { askedFor, placesOfAnswer } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { queries } from '../../api/queries';
import { PdfPages } from '../../features/page/pdf-pages';
import { Choice } from '../../ui/choice';
import { Bar, Small } from '../../ui/layout';

interface Props {
  intake: IntakeDetail;
  plan: IntakePlan;
  chosen: IntakeQuestion | null;
  onChoose: (question: string) => void;
}

/** The forms with the boxes of the chosen question lit; a click on a box goes to its question. */
export function FormBeside({ intake, plan, chosen, onChoose }: Props) {
  const { templates, places } = intake;
  const [shown, setShown] = useState(templates[0]?.id ?? 0);
  const own = chosen ? placesOfAnswer(plan, chosen, places) : [];
  // The form that the chosen question fills, unless the one that is shown is among them.
  const wanted = own.some(({ template }) => template === shown) ? shown : (own[0]?.template ?? shown);
  useEffect(() => setShown(wanted), [wanted]);
  const template = templates.find(({ id }) => id === wanted);
  const { data: bytes = null } = useQuery({
    ...queries.templatePdf(template?.id ?? 0, template?.revisionId ?? 0),
    enabled: template !== undefined,
  });
  const [first = null, ...also] = own.filter((place) => place.template === wanted).map(({ field }) => field);
  const questionOf = (field: string): string | undefined => {
    const column = Object.entries(places).find(([, all]) => all.some((place) => place.template === wanted && place.field === field))?.[0];
    return column === undefined ? undefined : askedFor(plan, column)?.id;
  };
  if (!template) return null;
  return (
    <>
      {templates.length > 1 && (
        <Bar>
          <Choice
            label="Form"
            hideLabel
            small
            items={templates.map(({ id, name }) => ({ id: String(id), text: name }))}
            value={String(wanted)}
            onChange={(id) => setShown(Number(id))}
          />
          {chosen && own.length === 0 && <Small>This question is on no form.</Small>}
        </Bar>
      )}
      <PdfPages
        bytes={bytes}
        pages={template.pageSizes}
        fields={template.fieldList}
        chosen={first}
        also={also}
        onChoose={(field) => {
          const question = questionOf(field);
          if (question !== undefined) onChoose(question);
        }}
      />
    </>
  );
}
