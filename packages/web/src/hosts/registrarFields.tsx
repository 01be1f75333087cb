import { FieldErrors, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { Choice, Tick } from './choice';
import { TypedHost } from './typedHost';

const COUNTS = Object.fromEntries(Array.from({ length: 13 }, (_, index) => [String(index + 1), String(index + 1)]));

/** How a registrar's page wants a nameserver set: its sheet follows it. */
export function RegistrarFields({ register, errors, entry }: { register: UseFormRegister<TypedHost>; errors: FieldErrors<TypedHost>; entry: string }) {
  return (
    <div className="mt-2">
      <div className="grid grid-cols-4 gap-x-4 gap-y-2 max-lg:grid-cols-2 max-md:grid-cols-1">
        <Choice
          label="Names are typed"
          field="form.entry"
          register={register}
          choices={{ each: 'each in a field of its own', list: 'in one field, a line each' }}
        />
        <Choice
          label="Dot at the end"
          field="form.dot"
          register={register}
          choices={{ either: 'makes no difference', required: 'required', refused: 'refused' }}
        />
        <Choice label="At the least" field="form.least" register={register} choices={COUNTS} asNumber />
        <div>
          <Choice label="At the most" field="form.most" register={register} choices={COUNTS} asNumber />
          {errors.form?.most?.message && <p className="text-rust">{errors.form.most.message}</p>}
        </div>
        {entry === 'each' && <Choice label="Fields there at first" field="form.shown" register={register} choices={COUNTS} asNumber />}
        <Choice
          label="After saving"
          field="form.confirm"
          register={register}
          choices={{ none: 'the change is sent', mail: 'a mail has to be confirmed', identity: 'the owner proves who he is' }}
        />
      </div>
      <p className="flex flex-wrap gap-x-6 py-2">
        <Tick label="Old names have to be taken out and saved first" field="form.emptyFirst" register={register} />
        <Tick label="Sent on a further page" field="form.apart" register={register} />
        <Tick label="Asks for consent" field="form.consent" register={register} />
      </p>
      <label>
        <span className="block text-sm text-faded">Warnings to expect although everything is right, one a line</span>
        <textarea rows={2} {...register('form.warnings')} className={inputLook} />
      </label>
    </div>
  );
}
