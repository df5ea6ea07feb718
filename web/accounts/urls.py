"""Addresses of signing in, up and out."""

from django.contrib.auth.views import LogoutView
from django.urls import path

from . import views

urlpatterns = [
    path("sign-in/", views.SignIn.as_view(), name="sign-in"),
    path("sign-in-here/", views.sign_in_here, name="sign-in-here"),
    path("token/", views.token, name="token"),
    path("sign-up/", views.sign_up, name="sign-up"),
    path("password/", views.ChangePassword.as_view(), name="change-password"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
]
