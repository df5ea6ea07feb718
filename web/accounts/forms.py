"""Forms for signing in and up."""

from django.contrib.auth.forms import AuthenticationForm, PasswordChangeForm, UserCreationForm


class SignInForm(AuthenticationForm):
    """Name and password."""

    error_messages = {
        **AuthenticationForm.error_messages,
        "invalid_login": "This name and password do not belong together. Both are case-sensitive.",
    }


class SignUpForm(UserCreationForm):
    """A name and a password, twice."""

    field_order = ["username", "password1", "password2"]

    def __init__(self, *arguments, **options):
        super().__init__(*arguments, **options)
        self.fields.pop("usable_password", None)


class ChangePasswordForm(PasswordChangeForm):
    """The password as it is, and the new one twice."""

    error_messages = {
        **PasswordChangeForm.error_messages,
        "password_incorrect": "This is not your password as it is now.",
    }
