import { Link } from 'react-router';
import { Wordmark } from '../common/Wordmark.tsx';
import { SHIPPED } from './licences.ts';

/** What Kadrel is, and what ships with it under which licence. */
export function About() {
  return (
    <main className="mx-auto flex max-w-[860px] flex-col gap-5 p-10">
      <Link to="/projects" aria-label="To the projects">
        <Wordmark large />
      </Link>
      <h1 className="text-[20px] font-bold">About Kadrel</h1>
      <p className="max-w-[70ch]">
        Kadrel is a workshop for exact solid models. Solids are kept as true surfaces; facets exist only for
        display and mesh files, within a stated tolerance.
      </p>
      <h2 className="text-[15px] font-semibold">What ships with it</h2>
      <p className="max-w-[70ch] text-ink2">
        The exact kernel is under the LGPL 2.1. It stays a file of its own,{' '}
        <code className="num">assets/replicad_single-….wasm</code>, which the operator may replace by another
        build of the same interface.
      </p>
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="border-b border-rule text-ink2">
            <th className="py-2 pr-4 font-semibold">Package</th>
            <th className="py-2 pr-4 font-semibold">Licence</th>
            <th className="py-2 font-semibold">What for</th>
          </tr>
        </thead>
        <tbody>
          {SHIPPED.map(({ name, licence, about }) => (
            <tr key={name} className="border-b border-rule">
              <td className="num py-1.5 pr-4">{name}</td>
              <td className="py-1.5 pr-4">{licence}</td>
              <td className="py-1.5 text-ink2">{about}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <a className="text-plum underline" href="/licences.txt">
          The licences in full
        </a>
      </p>
    </main>
  );
}
