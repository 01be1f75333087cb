/** How the parts of a record are headed, as panels of six languages have it. */
export interface Headings {
  readonly name: readonly string[];
  readonly type: readonly string[];
  readonly value: readonly string[];
  readonly ttl: readonly string[];
  readonly priority: readonly string[];
  readonly state: readonly string[];
  readonly action: readonly string[];
  readonly remark: readonly string[];
  readonly now: string;
  readonly next: string;
}

export const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'] as const;
export type Language = (typeof LANGUAGES)[number];

export const HEADINGS: Readonly<Record<Language, Headings>> = {
  en: {
    name: ['Name', 'Host', 'Hostname', 'Record name', 'Subdomain'],
    type: ['Type', 'Record type'],
    value: ['Value', 'Content', 'Points to', 'Data', 'Target'],
    ttl: ['TTL', 'Time to live'],
    priority: ['Priority', 'Prio'],
    state: ['Status'],
    action: ['Actions'],
    remark: ['Comment', 'Note'],
    now: 'Current value',
    next: 'New value',
  },
  de: {
    name: ['Name', 'Hostname', 'Host', 'Subdomain', 'Präfix'],
    type: ['Typ', 'Eintragstyp', 'Art'],
    value: ['Wert', 'Ziel', 'Inhalt', 'Zeigt auf'],
    ttl: ['TTL', 'Lebensdauer'],
    priority: ['Priorität', 'Prio'],
    state: ['Status', 'Zustand'],
    action: ['Aktionen', 'Aktion'],
    remark: ['Kommentar', 'Bemerkung'],
    now: 'Aktueller Wert',
    next: 'Neuer Wert',
  },
  fr: {
    name: ['Nom', 'Hôte', 'Sous-domaine', 'Nom d’hôte'],
    type: ['Type', 'Type d’enregistrement'],
    value: ['Valeur', 'Cible', 'Contenu', 'Pointe vers'],
    ttl: ['TTL', 'Durée de vie'],
    priority: ['Priorité'],
    state: ['Statut', 'État'],
    action: ['Actions'],
    remark: ['Commentaire', 'Remarque'],
    now: 'Valeur actuelle',
    next: 'Nouvelle valeur',
  },
  es: {
    name: ['Nombre', 'Host', 'Subdominio'],
    type: ['Tipo', 'Tipo de registro'],
    value: ['Valor', 'Destino', 'Contenido', 'Apunta a'],
    ttl: ['TTL'],
    priority: ['Prioridad'],
    state: ['Estado'],
    action: ['Acciones'],
    remark: ['Comentario', 'Nota'],
    now: 'Valor actual',
    next: 'Nuevo valor',
  },
  it: {
    name: ['Nome', 'Host', 'Nome host', 'Sottodominio'],
    type: ['Tipo', 'Tipo di record'],
    value: ['Valore', 'Destinazione', 'Contenuto', 'Punta a'],
    ttl: ['TTL', 'Durata'],
    priority: ['Priorità'],
    state: ['Stato'],
    action: ['Azioni'],
    remark: ['Commento', 'Nota'],
    now: 'Valore attuale',
    next: 'Nuovo valore',
  },
  nl: {
    name: ['Naam', 'Host', 'Hostnaam', 'Subdomein'],
    type: ['Type', 'Soort'],
    value: ['Waarde', 'Doel', 'Inhoud', 'Wijst naar'],
    ttl: ['TTL'],
    priority: ['Prioriteit'],
    state: ['Status'],
    action: ['Acties'],
    remark: ['Opmerking'],
    now: 'Huidige waarde',
    next: 'Nieuwe waarde',
  },
};

export const STATES: Readonly<Record<Language, readonly string[]>> = {
  en: ['Active', 'Enabled'],
  de: ['Aktiv'],
  fr: ['Actif'],
  es: ['Activo'],
  it: ['Attivo'],
  nl: ['Actief'],
};

export const ACTIONS: Readonly<Record<Language, readonly string[]>> = {
  en: ['Edit Delete', 'Edit', '✎ 🗑', 'Edit | Delete'],
  de: ['Bearbeiten Löschen', 'Bearbeiten'],
  fr: ['Modifier Supprimer', 'Modifier'],
  es: ['Editar Eliminar', 'Editar'],
  it: ['Modifica Elimina', 'Modifica'],
  nl: ['Bewerken Verwijderen', 'Bewerken'],
};

export const GREETINGS: Readonly<Record<Language, readonly string[]>> = {
  en: ['Hi,\n\nhere are the records as our panel shows them:', 'Hello, please find the DNS entries below.', 'DNS records'],
  de: ['Hallo,\n\nhier die Einträge, wie sie im Panel stehen:', 'Guten Tag, anbei die DNS-Einträge.', 'DNS-Einträge'],
  fr: ['Bonjour,\n\nvoici les enregistrements tels que le panneau les montre :', 'Enregistrements DNS'],
  es: ['Hola,\n\nestos son los registros que muestra el panel:', 'Registros DNS'],
  it: ['Buongiorno,\n\necco i record come li mostra il pannello:', 'Record DNS'],
  nl: ['Hallo,\n\nhier de records zoals het paneel ze toont:', 'DNS-records'],
};

export const FOOTERS: Readonly<Record<Language, readonly string[]>> = {
  en: ['Kind regards\nThe support team', 'Showing 1 to 20 of 20 entries', '© 2026 All rights reserved'],
  de: ['Mit freundlichen Grüßen\nIhr Support', 'Einträge 1 bis 20 von 20'],
  fr: ['Cordialement\nLe support', 'Affichage de 1 à 20 sur 20'],
  es: ['Saludos\nEl equipo de soporte', 'Mostrando 1 a 20 de 20'],
  it: ['Cordiali saluti\nIl supporto', 'Da 1 a 20 di 20'],
  nl: ['Met vriendelijke groet\nDe helpdesk', '1 tot 20 van 20 weergegeven'],
};

/** Headings that say whether a block is about what is there, or about what is wanted. */
export const ABOUT: Readonly<Record<Language, { readonly old: readonly string[]; readonly next: readonly string[]; readonly example: readonly string[] }>> = {
  en: {
    old: ['Current records:', 'Existing records', 'Please remove:'],
    next: ['New records:', 'Please add these:', 'Required records'],
    example: ['Example:', 'For example:'],
  },
  de: {
    old: ['Aktuelle Einträge:', 'Bisherige Einträge', 'Bitte löschen:'],
    next: ['Neue Einträge:', 'Bitte anlegen:'],
    example: ['Beispiel:', 'Zum Beispiel:'],
  },
  fr: { old: ['Enregistrements actuels :', 'À supprimer :'], next: ['Nouveaux enregistrements :', 'À ajouter :'], example: ['Exemple :', 'Par exemple :'] },
  es: { old: ['Registros actuales:', 'Eliminar:'], next: ['Nuevos registros:', 'Añadir:'], example: ['Ejemplo:', 'Por ejemplo:'] },
  it: { old: ['Record attuali:', 'Da eliminare:'], next: ['Nuovi record:', 'Da aggiungere:'], example: ['Esempio:', 'Per esempio:'] },
  nl: { old: ['Huidige records:', 'Verwijderen:'], next: ['Nieuwe records:', 'Toevoegen:'], example: ['Voorbeeld:', 'Bijvoorbeeld:'] },
};
