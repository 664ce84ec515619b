import { emptyDocument, type KadrelDocument } from '@kadrel/core';
import { said } from '@kadrel/testing';
import { DocumentHolder, DocumentSender } from './documents.ts';

const after = (document: KadrelDocument, verb: string, typed: object) =>
  said(document, verb, { ...typed }).document;
const box = (document: KadrelDocument) =>
  after(document, 'box', { size: ['1', '2', '3'], at: ['0', '0', '0'] });

test('the worker holds every document that it is asked about, and is sent only what is new', () => {
  const [sender, holder] = [new DocumentSender(), new DocumentHolder()];
  const carried = (document: KadrelDocument) => {
    const { number, news } = sender.numberOf(document);
    // As it arrives in a worker.
    if (news) holder.take(structuredClone(news));
    expect(holder.at(number)).toEqual(document);
    return news;
  };
  const first = Array.from({ length: 20 }).reduce<KadrelDocument>(box, emptyDocument());
  expect(Object.keys(carried(first)!.items)).toHaveLength(20);
  expect(carried(first)).toBeUndefined();
  const [some] = Object.keys(first.items);
  const moved = after(first, 'nudge', { parts: [some], by: ['1', '0', '0'] });
  expect(Object.keys(carried(moved)!.items)).toEqual([some]);
  const without = after(moved, 'delete', { parts: [some] });
  expect(carried(without)).toMatchObject({ items: {}, removed: [some] });
  // Back and forth, as between what is shown and what is tried.
  for (const document of [first, without, moved, first]) expect(carried(document)).toBeUndefined();
  const units = after(first, 'scene', { units: 'cm' });
  expect(carried(units)).toMatchObject({ items: {}, removed: [], rest: { scene: { units: 'cm' } } });
});

test('few are held, and a new worker is sent the whole', () => {
  const [sender, holder] = [new DocumentSender(), new DocumentHolder()];
  let document = emptyDocument();
  const numbers: number[] = [];
  for (let i = 0; i < 20; i++) {
    document = box(document);
    const { number, news } = sender.numberOf(document);
    holder.take(news!);
    numbers.push(number);
  }
  expect(() => holder.at(numbers[0]!)).toThrow('holds no document');
  sender.reset();
  const fresh = new DocumentHolder();
  const { number, news } = sender.numberOf(document);
  expect(news!.from).toBeNull();
  fresh.take(structuredClone(news!));
  expect(fresh.at(number)).toEqual(document);
});
