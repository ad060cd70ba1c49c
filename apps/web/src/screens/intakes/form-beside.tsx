import { t } from '@mailbag/core/words';
import type { IntakeQuestion } from '@mailbag/core';
import { askedFor, isPictureKind, placesOfAnswer } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { queries } from '../../api/queries';
import { PdfPages } from '../../features/page/pdf-pages';
import { Choice } from '../../ui/choice';
import { Bar, Small } from '../../ui/layout';
import { useDrawSignature } from './draw-signature';
import type { IntakeWork } from './intake-work';

interface Props {
  work: IntakeWork;
  chosen: IntakeQuestion | null;
  onChoose: (question: string) => void;
  /** Whether a box is drawn for the chosen question, or for a signature where that one is none. */
  isDrawing: boolean;
  onDrawn: (question: string | null) => void;
}

/** The forms with the boxes of the chosen question lit; a click on a box goes to its question. */
export function FormBeside({ work, chosen, onChoose, isDrawing, onDrawn }: Props) {
  const { intake, document: plan } = work;
  const { templates, places } = intake;
  const [shown, setShown] = useState(templates[0]?.id ?? 0);
  const own = chosen ? placesOfAnswer(plan, chosen, places) : [];
  // The form that the chosen question fills, unless the one that is shown is among them.
  const [looked, setLooked] = useState<number | null>(null);
  const wanted =
    isDrawing && looked !== null ? looked : own.some(({ template }) => template === shown) ? shown : (own[0]?.template ?? shown);
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
  const drawing = useDrawSignature({
    work,
    question: chosen && isPictureKind(chosen.kind) ? chosen : null,
    template: wanted,
    onDone: onDrawn,
  });
  if (!template) return null;
  return (
    <>
      {templates.length > 1 && (
        <Bar>
          <Choice
            label={t`Form`}
            hideLabel
            small
            items={templates.map(({ id, name }) => ({ id: String(id), text: name }))}
            value={String(wanted)}
            onChange={(id) => {
              setShown(Number(id));
              setLooked(Number(id));
            }}
          />
          {chosen && own.length === 0 && <Small>{t`This question is on no form.`}</Small>}
        </Bar>
      )}
      {isDrawing && drawing.head}
      <PdfPages
        {...(isDrawing && { over: drawing.over })}
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
