import { FactorOffer, Me, RecoveryCodes } from '@wanderon/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import { call } from '../api';
import { Button } from '../ui/button';
import { Copy } from '../ui/copy';
import { Field } from '../ui/field';
import { Failed } from '../ui/states';
import { problemAt } from '../ui/problemAt';
import { saveFile } from '../ui/saveFile';

/** Sets a second factor up, in three steps: one's password, the picture for the app with a code of it, and the recovery codes. */
export function FactorForm({ me, onCodes }: { me: Me; onCodes?: (shown: boolean) => void }) {
  const queries = useQueryClient();
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const offer = useMutation({
    mutationFn: () => call<FactorOffer>('POST', '/api/me/second-factor', { password }),
    onSuccess: () => setPassword(''),
  });
  // Who one is is read anew once the recovery codes were seen: with that the page goes on.
  const confirm = useMutation({ mutationFn: () => call<RecoveryCodes>('PUT', '/api/me/second-factor', { code }), onSuccess: () => onCodes?.(true) });
  const off = useMutation({
    mutationFn: () => call('POST', '/api/me/second-factor/off', { password }),
    onSuccess: async () => {
      setPassword('');
      await queries.invalidateQueries({ queryKey: ['me'] });
    },
  });
  const renew = useMutation({
    mutationFn: () => call<RecoveryCodes>('POST', '/api/me/second-factor/codes', { password }),
    onSuccess: () => setPassword(''),
  });
  const ask = me.factor ? off : offer;
  const refused = ask.error ?? renew.error;
  const shown = confirm.data ?? renew.data;
  if (shown)
    return (
      <Codes
        codes={shown.codes}
        login={me.login}
        onDone={() => {
          offer.reset();
          confirm.reset();
          renew.reset();
          void queries.invalidateQueries({ queryKey: ['me'] }).then(() => onCodes?.(false));
        }}
      />
    );
  if (offer.data)
    return (
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          confirm.mutate();
        }}
      >
        <p className="mb-3">Take this picture with your app for codes, or type the secret there. Then type the code that it shows.</p>
        <div className="mb-3 flex flex-wrap items-start gap-5">
          <QRCodeSVG value={offer.data.address} size={148} marginSize={2} title="The secret, as a picture for the app" bgColor="#ffffff" fgColor="#000000" />
          <div>
            <p className="text-sm text-faded">Secret, if the picture cannot be taken</p>
            <p className="flex items-center gap-1">
              <span className="mono">{offer.data.secret.match(/.{1,4}/g)!.join(' ')}</span>
              <Copy value={offer.data.secret} label="the secret" />
            </p>
          </div>
        </div>
        <div className="max-w-56">
          <Field
            label="Code"
            mono
            autoFocus
            inputMode="numeric"
            autoComplete="one-time-code"
            value={code}
            onChange={(event) => setCode(event.target.value)}
            problem={problemAt(confirm.error, 'code')}
          />
        </div>
        {confirm.error && !problemAt(confirm.error, 'code') && <Failed error={confirm.error} />}
        <Button kind="main" type="submit" disabled={confirm.isPending}>
          Use this from now on
        </Button>{' '}
        <Button kind="quiet" onClick={() => offer.reset()}>
          Not now
        </Button>
      </form>
    );
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        ask.mutate();
      }}
    >
      <p className="mb-3">
        {me.factor
          ? 'There is one: a code of your app is asked for at each sign-in.'
          : 'There is none: whoever knows your password is you. With one, a code of an app on your phone is asked for as well.'}
        {me.demanded && ' An administrator asks for one.'}
      </p>
      <Field
        label="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
        problem={problemAt(refused, 'password')}
      />
      {refused && !problemAt(refused, 'password') && <Failed error={refused} />}
      <Button kind={me.must === 'second factor' ? 'main' : 'plain'} type="submit" disabled={ask.isPending}>
        {me.factor ? 'Take it off' : 'Set one up'}
      </Button>
      {me.factor && (
        <>
          {' '}
          <Button disabled={renew.isPending} onClick={() => renew.mutate()}>
            New recovery codes
          </Button>
        </>
      )}
    </form>
  );
}

/** Shown once; nobody can be told them again. */
function Codes({ codes, login, onDone }: { codes: readonly string[]; login: string; onDone: () => void }) {
  const text = codes.join('\n');
  return (
    <div>
      <p className="mb-2">Recovery codes: each opens the account once, where the app is lost. They are shown this once; keep them where the phone is not.</p>
      <ul className="mono mb-3 grid w-fit grid-cols-2 gap-x-8 border-y border-rule py-2">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <div className="flex items-center gap-3">
        <Button kind="main" onClick={onDone}>
          I have kept them
        </Button>
        <Button onClick={() => saveFile(`recovery-codes-${login}.txt`, 'text/plain', `${text}\n`)}>Save as a file</Button>
        <span className="inline-flex items-center gap-1 text-faded">
          Copy all <Copy value={text} label="all recovery codes" />
        </span>
      </div>
    </div>
  );
}
