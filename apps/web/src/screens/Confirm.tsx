import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useLocation, useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { Wordmark } from '../common/Wordmark.tsx';

/** Where the link of a message leads. What it carries stands behind the #, which no server sees, and is used only by the button. */
export function Confirm() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { hash } = useLocation();
  const confirm = useMutation({
    mutationFn: () => api.confirm(hash.slice(1)),
    onSuccess: async () => {
      queries.clear();
      await navigate('/projects');
    },
  });
  return (
    <main className="flex max-w-[60ch] flex-col items-start gap-4 p-10">
      <Wordmark large />
      <h1 className="text-[22px] font-bold">Finish your account</h1>
      <p>Your address is confirmed by this link. The account is made when you press the button.</p>
      {confirm.error && (
        <p role="alert" className="text-bad">
          {confirm.error.message}
        </p>
      )}
      <button
        type="button"
        className="button main"
        disabled={confirm.isPending}
        onClick={() => confirm.mutate()}
      >
        Make the account and sign in
      </button>
      <Link to="/sign-in" className="text-ink3 underline">
        To sign-in
      </Link>
    </main>
  );
}
