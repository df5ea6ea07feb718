"""Addresses of renders."""

from django.urls import path

from . import views

urlpatterns = [
    path("", views.renders, name="renders"),
    path("keep/", views.keep, name="keep-renders"),
    path("of/<int:scene_id>/", views.ask, name="ask-render"),
    path("of/<int:scene_id>/likely/", views.likely, name="likely"),
    path("of/<int:scene_id>/fit.jpg", views.fit_poster, name="fit-poster"),
    path("<int:render_id>/again/", views.again, name="render-again"),
    path("<int:render_id>/first/", views.first, name="render-first"),
    path("<int:render_id>/cancel/", views.cancel, name="cancel-render"),
    path("<int:render_id>/remove/", views.remove, name="remove-render"),
    path("<int:render_id>/clip/", views.clip, name="clip"),
    path("<int:render_id>/poster.jpg", views.poster, name="render-poster"),
]
