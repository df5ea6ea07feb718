"""Signing in, up and out."""

from django.conf import settings
from django.contrib.auth import login
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LoginView
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.decorators import method_decorator

from .forms import SignInForm, SignUpForm


@method_decorator(login_not_required, name="dispatch")
class SignIn(LoginView):
    """Signing in; on a local start the demo account is filled in."""

    template_name = "accounts/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def get_context_data(self, **context):
        return super().get_context_data(
            demo_name=settings.DEMO_NAME, demo_password=settings.DEMO_PASSWORD, **context
        )


@login_not_required
def sign_up(request: HttpRequest) -> HttpResponse:
    """Making an account."""
    form = SignUpForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        login(request, form.save())
        return redirect("projects")
    return render(request, "accounts/sign_up.html", {"form": form})
