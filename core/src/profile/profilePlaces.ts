/** Where operating systems keep profiles. */
export const PROFILE_PLACES: readonly (readonly [system: string, place: string])[] = [
  [
    'Windows',
    'Right-click the file and choose to install it; it is kept in C:\\Windows\\System32\\spool\\drivers\\color.',
  ],
  [
    'macOS',
    'Copy it to /Library/ColorSync/Profiles for everybody, or to Library/ColorSync/Profiles in your home folder.',
  ],
  ['Linux', 'Copy it to /usr/share/color/icc for everybody, or to .local/share/icc in your home folder.'],
];

export const PROFILE_PLACES_NOTE =
  'The settings go with the profile: it holds for the paper, inks and driver settings it was made with. ' +
  'Start the program that prints again afterwards, so that it finds the profile. ' +
  'Print with colour management in the program on and in the driver off.';
