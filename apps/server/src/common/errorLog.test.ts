import { isBusy, loggedError } from './errorLog.ts';

test('nothing that people typed reaches the log', () => {
  const error = Object.assign(
    new Error("insert into account values ('ada@kadrel.example', '$argon2id$v=19$secret') - duplicate key"),
    { name: 'UniqueConstraintViolationException', code: '23505', detail: 'Key (email)=(ada@kadrel.example)' },
  );
  const logged = loggedError(error);
  expect(logged).toMatch(/^UniqueConstraintViolationException \(23505\)\n\s+at /);
  expect(logged).not.toMatch(/ada@|argon2|insert/);
  expect(loggedError({ password: 'x' })).not.toContain('password');
});

test.each([
  ['57014', true],
  ['55P03', true],
  ['53300', true],
  ['40P01', true],
  ['ECONNREFUSED', true],
  ['23505', false],
  ['22P05', false],
])('code %s is passing: %s', (code, passing) => {
  expect(isBusy(Object.assign(new Error('x'), { code }))).toBe(passing);
});
