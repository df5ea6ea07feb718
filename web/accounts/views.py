"""Signing in, up and out."""

from django.conf import settings
from django.contrib import messages
from django.contrib.auth import login
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LoginView, PasswordChangeView
from django.db import transaction
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.middleware.csrf import get_token
from django.shortcuts import redirect, render
from django.urls import reverse, reverse_lazy
from django.utils.decorators import method_decorator
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST

from .forms import ChangePasswordForm, InvitedSignUpForm, SignInForm, SignUpForm

# By who may make an account: anybody, or who is invited. Where that is closed there is none.
SIGN_UP_FORMS = {"open": SignUpForm, "invited": InvitedSignUpForm}


@method_decorator(login_not_required, name="dispatch")
class SignIn(LoginView):
    """Signing in; on a local start the demo account is filled in."""

    template_name = "accounts/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def get_context_data(self, **context):
        return super().get_context_data(
            demo_name=settings.DEMO_NAME,
            demo_password=settings.DEMO_PASSWORD,
            may_sign_up=settings.SIGN_UP in SIGN_UP_FORMS,
            **context,
        )


@login_not_required
@require_POST
def sign_in_here(request: HttpRequest) -> HttpResponse:
    """Signing in without leaving the page: answers with what `token` does, or 422 and why not."""
    form = SignInForm(request, request.POST)
    if not form.is_valid():
        told = " ".join(error for errors in form.errors.values() for error in errors)
        return JsonResponse({"message": told}, status=422)
    login(request, form.get_user())
    return token(request)


@login_not_required
@never_cache
def token(request: HttpRequest) -> HttpResponse:
    """Who is signed in ("" if nobody is), and the token that the page's requests need now."""
    return JsonResponse({"name": request.user.get_username(), "token": get_token(request)})


class ChangePassword(PasswordChangeView):
    """Another password; the sessions of the old one end, but for this one."""

    template_name = "accounts/password.html"
    form_class = ChangePasswordForm
    success_url = reverse_lazy("projects")

    def form_valid(self, form: ChangePasswordForm) -> HttpResponse:
        messages.success(self.request, "Your password is changed.")
        return super().form_valid(form)


def locked_out(request: HttpRequest, credentials: dict | None = None, **_: object) -> HttpResponse:
    """What is answered instead of signing in after too many failures."""
    minutes = round(settings.AXES_COOLOFF_TIME.total_seconds() / 60)
    told = f"That was wrong too often. Try again in {minutes} minutes."
    if request.path == reverse("sign-in-here"):
        return JsonResponse({"message": told}, status=429)
    return render(request, "accounts/locked.html", {"told": told}, status=429)


@login_not_required
def sign_up(request: HttpRequest) -> HttpResponse:
    """Making an account, where people do that for themselves."""
    if settings.SIGN_UP not in SIGN_UP_FORMS:
        told = "Accounts are not made here: ask who runs this installation for one."
        return render(request, "accounts/locked.html", {"told": told}, status=403)
    known = {"invitation": request.GET.get("invitation", "")}
    # An invitation is looked at and used up within one transaction.
    with transaction.atomic():
        form = SIGN_UP_FORMS[settings.SIGN_UP](request.POST or None, initial=known)
        person = form.save() if request.method == "POST" and form.is_valid() else None
    if person is not None:
        login(request, person, backend=settings.AUTHENTICATION_BACKENDS[-1])
        return redirect("projects")
    return render(request, "accounts/sign_up.html", {"form": form})
