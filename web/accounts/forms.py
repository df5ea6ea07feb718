"""Forms for signing in and up."""

from django import forms
from django.contrib.auth.forms import AuthenticationForm, PasswordChangeForm, UserCreationForm
from django.contrib.auth.models import AbstractUser
from django.contrib.auth.password_validation import password_validators_help_texts
from django.utils import timezone

from .models import invitation_for


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
        self.fields["password1"].help_text = _what_a_password_needs()


class InvitedSignUpForm(SignUpForm):
    """The same with the code of an invitation, which is used up with it."""

    field_order = ["invitation", *SignUpForm.field_order]
    invitation = forms.CharField(max_length=100)

    def clean_invitation(self) -> str:
        if invitation_for(self.cleaned_data["invitation"]) is None:
            raise forms.ValidationError(
                "This invitation was used already, is older than two weeks, or is none. Ask for "
                "another."
            )
        return self.cleaned_data["invitation"]

    def save(self, commit: bool = True) -> AbstractUser:
        person = super().save(commit)
        invitation = invitation_for(self.cleaned_data["invitation"])
        invitation.used_at, invitation.used_by = timezone.now(), person
        invitation.save(update_fields=["used_at", "used_by"])
        return person


def _what_a_password_needs() -> str:
    """In sentences one after another: the list that Django makes of them is run together here."""
    return " ".join(password_validators_help_texts())


class ChangePasswordForm(PasswordChangeForm):
    """The password as it is, and the new one twice."""

    def __init__(self, *arguments, **options):
        super().__init__(*arguments, **options)
        self.fields["new_password1"].help_text = _what_a_password_needs()

    error_messages = {
        **PasswordChangeForm.error_messages,
        "password_incorrect": "This is not your password as it is now.",
    }
