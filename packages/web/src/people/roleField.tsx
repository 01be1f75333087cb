import { ROLES, Role } from '@wanderon/contract';
import { useId } from 'react';
import { inputLook } from '../ui/field';

const MAY: Readonly<Record<Role, string>> = {
  viewer: 'Sees everything, changes nothing.',
  technician: 'Moves domains, and changes what is known of hosts.',
  administrator: 'Looks after accounts besides, and reads the whole trail.',
};

export function RoleField({ value, onChange }: { value: Role; onChange: (role: Role) => void }) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        Role
      </label>
      <select id={id} value={value} className={inputLook} aria-describedby={`${id}-may`} onChange={(event) => onChange(event.target.value as Role)}>
        {ROLES.map((role) => (
          <option key={role}>{role}</option>
        ))}
      </select>
      <p id={`${id}-may`} className="text-sm text-faded">
        {MAY[value]}
      </p>
    </div>
  );
}
