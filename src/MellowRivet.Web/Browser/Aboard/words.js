// How what lies on a device is told.
export const megabytes = bytes => `${(bytes / 1e6).toLocaleString('en-GB', { maximumFractionDigits: 1 })} MB`;
export const clock = at =>
  new Date(at).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
