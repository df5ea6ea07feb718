"""Signing in, up and out."""

from django.conf import settings
from django.contrib.auth import login
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LoginView
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.middleware.csrf import get_token
from django.shortcuts import redirect, render
from django.utils.decorators import method_decorator
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST

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


@login_not_required
def sign_up(request: HttpRequest) -> HttpResponse:
    """Making an account."""
    form = SignUpForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        login(request, form.save())
        return redirect("projects")
    return render(request, "accounts/sign_up.html", {"form": form})
