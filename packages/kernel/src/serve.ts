/** The worker's side: answers requests one by one with an Evaluator. */
import { DocumentHolder } from './documents.ts';
import type { BuildWatch } from './buildWatch.ts';
import type { Libraries } from './builder.ts';
import { Evaluator, type EvaluateOptions } from './evaluate.ts';
import { prebuiltKeys } from './fromPrebuilt.ts';
import type { Prebuilt } from './prebuilt.ts';
import type { ShapeFacts } from './shapes.ts';
import { BuildError } from './occt/occt.ts';
import { withDocument, type FromWorker, type Request, type ToWorker } from './protocol.ts';

/** Facts that were sent away are gone here; transferring leaves empty arrays behind, which nothing reads again. */
function buffersOf(facts: readonly ShapeFacts[]): ArrayBuffer[] {
  const found = new Set<ArrayBuffer>();
  const visit = (value: unknown): void => {
    if (ArrayBuffer.isView(value)) found.add(value.buffer as ArrayBuffer);
    else if (typeof value === 'object' && value !== null) Object.values(value).forEach(visit);
  };
  facts.forEach(visit);
  return [...found];
}

/** Answers the messages that come through a port. */
export function serve(
  { libraries, watch }: { readonly libraries: Libraries; readonly watch: BuildWatch },
  post: (message: FromWorker, transfer: ArrayBuffer[]) => void,
): (message: ToWorker) => void {
  const documents = new DocumentHolder();
  const evaluator = new Evaluator(libraries, watch);
  let prebuilt: Prebuilt | undefined;
  return ({ id, news, poisoned, request, ...more }) => {
    try {
      prebuilt = more.prebuilt ?? prebuilt;
      if (news) documents.take(news);
      if (poisoned) watch.poisoned = new Map(poisoned);
      watch.onBuilding = (key) => post({ say: 'building', id, key }, []);
      const asked = withDocument(request, (number) => documents.at(number));
      const onPart = (progress: Progress) => post({ say: 'progress', id, ...progress }, []);
      const [answer, transfer] = answerTo(evaluator, asked, { prebuilt, onPart });
      post({ say: 'answer', id, answer }, transfer);
    } catch (error) {
      if (error instanceof BuildError) post({ say: 'refusal', id, fault: error.fault }, []);
      else post({ say: 'broken', reason: error instanceof Error ? error.message : String(error) }, []);
    }
  };
}

type Answer = Extract<FromWorker, { say: 'answer' }>['answer'];
type Progress = Omit<Extract<FromWorker, { say: 'progress' }>, 'say' | 'id'>;

function answerTo(
  evaluator: Evaluator,
  request: Request,
  { prebuilt, onPart }: Pick<EvaluateOptions, 'prebuilt' | 'onPart'>,
): [Answer, ArrayBuffer[]] {
  switch (request.ask) {
    case 'evaluate': {
      const { document, known, also } = request;
      const result = evaluator.evaluate(document, {
        known: new Set(known),
        also,
        prebuilt,
        onPart,
      });
      return [result, buffersOf(result.shapes)];
    }
    case 'measure':
      return [evaluator.measure(request.document, request.part), []];
    case 'answer':
      return [evaluator.answer(request.document, request.question), []];
    case 'facts': {
      const facts = evaluator.facts(request.document, request.part);
      return [facts, buffersOf([facts])];
    }
    case 'keys':
      return [prebuiltKeys(request.document, request.wholes), []];
    case 'export': {
      const file = evaluator.exported(request.format, request.exporting);
      return [file, typeof file === 'string' ? [] : [file.buffer as ArrayBuffer]];
    }
  }
}
