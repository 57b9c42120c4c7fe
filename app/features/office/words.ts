/** What fills a gap in a sentence: a name, a number, or words already put together. */
type Part = string | number;

/** What the screens of “office” say, in one place to read, edit and translate. */
export const TEXT = {
  // setup.tsx
  theSetUp: 'the set-up',
  setUpYourFirm: 'Set up your firm',
  youDoThisOnceYou: 'You do this once. You become the first member and can open a deal right away.',
  nameOfTheFirm: 'Name of the firm',
  yourName: 'Your name',
  yourEmail: 'Your email',
  setUpCode: 'Set-up code',
  theServerPrintsThisCode: 'The server prints this code when it starts. Without it, no one can set up the firm.',
  setUp: 'Set up',
  // sign-in.tsx
  theSign: 'the sign-in',
  signInTo: 'Sign in to ',
  email: 'Email',
  password: 'Password',
  signIn: 'Sign in',
  forgotYourPassword: 'Forgot your password?',
  thisIsTheDemoIts: 'This is the demo. Its people and papers are made up.',
  signInAs: (name: Part) => `Sign in as ${name}`,
  // ways-in.tsx
  goToSign: 'Go to sign-in',
  theInvitation: 'the invitation',
  joinFirm: (firm: Part) => `Join ${firm}`,
  youWillSign: (email: Part) => `You will sign in with ${email}.`,
  join: 'Join',
  resetYourPassword: 'Reset your password',
  askAnOwner: 'Ask an owner for the link',
  checkYourEmail: 'Check your email',
  ifThisAddressBelongs:
    'If this address belongs to a member, the mailroom now has a link to choose a new password. An owner of your firm can send it to you.',
  ifThisAddressBelongs2:
    'If this address belongs to a member, we will email you a link to choose a new password. The link works once and expires after one hour.',
  emailMeALink: 'Email me a link',
  backToSign: 'Back to sign-in',
  chooseANewPassword: 'Choose a new password',
  yourPasswordIsChangedYou: 'Your password is changed. You are signed out everywhere.',
  newPassword: 'New password',
  changeThePassword: 'Change the password',
};
