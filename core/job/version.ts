/** Version of the core; kept with every plan and every piece of evidence it made. */
export const CORE_VERSION = '0.1.0';
