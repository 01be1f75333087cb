import { Me, SettingView } from '@wanderon/contract';
import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { call } from '../api';
import { Failed, Loading } from '../ui/states';

/** What this installation was told when it was started, for administrators. */
export function SettingsPlace({ me }: { me: Me }) {
  const settings = useQuery({
    queryKey: ['settings'],
    queryFn: async () => (await call<{ settings: SettingView[] }>('GET', '/api/settings')).settings,
    enabled: me.role === 'administrator',
  });
  if (me.role !== 'administrator') return <Navigate to="/" replace />;
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <h1>Settings</h1>
      <p className="mb-3 text-faded">What Wanderon was started with. Each is an environment variable: it is changed there, and counts from the next start.</p>
      {settings.isPending && <Loading what="the settings" />}
      {settings.isError && <Failed error={settings.error} retry={() => void settings.refetch()} />}
      {settings.data && (
        <table className="w-full">
          <thead className="smallcaps text-left">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4">What</th>
              <th className="pr-4">In force</th>
              <th className="pr-4">Variable</th>
            </tr>
          </thead>
          <tbody>
            {settings.data.map(({ name, what, value, isSet }) => (
              <tr key={name} className="border-b border-rule align-baseline">
                <td className="py-1 pr-4">{what}</td>
                <td className="mono pr-4 [overflow-wrap:anywhere]">
                  {value}
                  {!isSet && <span className="font-sans text-sm text-faded"> (nothing set)</span>}
                </td>
                <td className="mono pr-4 text-faded">{name}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
