from django_otp.oath import totp
from django_otp.plugins.otp_totp.models import TOTPDevice
from playwright.sync_api import expect

from e2e.support import PHONE, Journey, choose
from server.accounts import beginning
from server.accounts.members import seat
from server.accounts.models import Crew, Role, User
from server.demo.scene import PASSWORD
from server.tests.support import stand_in_provider


def fill(page, **typed):
    for label, text in typed.items():
        page.get_by_label(label.replace("_", " "), exact=False).fill(text)


class PeopleOfACrew(Journey):
    def people_page(self):
        page = self.window()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="People of the crew").click()
        return page

    def invited(self, lead):
        """A link that the lead makes for a bender."""
        lead.get_by_label("For whom").fill("Nora")
        lead.get_by_role("button", name="Make the link").click()
        return lead.get_by_role("textbox", name="The link").input_value()

    def test_somebody_is_invited_joins_gets_another_role_and_is_removed(self):
        lead = self.people_page()
        nora = self.outside(self.invited(lead), size=PHONE)
        expect(nora.get_by_role("heading", name="Join “Saltmarsh Night Crew”")).to_be_visible()
        fill(nora, First_name="Nora", Last_name="Quill", Name_to_sign_in_by="marek", Password="two-straps-a-stick")
        nora.get_by_role("button", name="Join").click()
        expect(nora.get_by_text("Somebody signs in by that name already")).to_be_visible()
        expect(nora.get_by_label("First name")).to_have_value("Nora")
        fill(nora, Name_to_sign_in_by="nora")
        nora.get_by_role("button", name="Join").click()
        expect(nora.get_by_role("heading", name="Jobs")).to_be_visible()
        expect(nora.get_by_role("link", name="Kiln 2 feed")).to_be_visible()
        lead.reload()
        expect(lead.get_by_role("list", name="Open invitations")).to_have_count(0)
        choose(lead, "Role of Nora Quill", "viewer")
        nora.goto(f"{self.live_server_url}/people")
        expect(nora.get_by_role("listitem").filter(has_text="(you)").get_by_text("viewer")).to_be_visible()
        lead.get_by_role("button", name="Remove Nora Quill").click()
        lead.get_by_role("button", name="Remove", exact=True).last.click()
        expect(lead.get_by_role("combobox", name="Role of Nora Quill")).to_have_count(0)
        nora.goto(self.live_server_url)
        expect(nora.get_by_role("button", name="Sign in")).to_be_visible()
        lead.reload()
        expect(lead.get_by_role("region", name="Who did what").get_by_role("listitem").first).to_contain_text(
            "Dana Wexcombe removed: Nora Quill"
        )

    def test_the_browser_has_nothing_to_tell_of_the_sign_in_page(self):
        page, told = self.outside(installed=True), []
        page.on("console", lambda message: told.append(message.text))
        page.goto(self.live_server_url)
        expect(page.get_by_label("Password")).to_be_visible()
        self.assertEqual(told, [])

    def test_the_last_lead_stays_lead(self):
        lead = self.people_page()
        choose(lead, "Role of Dana Wexcombe", "viewer")
        expect(lead.get_by_text("A crew has one lead at least")).to_be_visible()
        expect(lead.get_by_role("combobox", name="Role of Dana Wexcombe")).to_have_text("lead")

    def test_a_forgotten_password_is_set_by_the_leads_link(self):
        marek = self.window("marek")
        lead = self.people_page()
        lead.get_by_role("listitem").filter(has_text="Marek Olin").get_by_role("button", name="Forgot").click()
        link = lead.get_by_role("textbox", name="The link").input_value()
        anew = self.outside(link)
        expect(anew.get_by_role("heading", name="A new password for Marek Olin")).to_be_visible()
        fill(anew, Password="1234567890")
        anew.get_by_role("button", name="Set it and sign in").click()
        expect(anew.get_by_text("entirely numeric")).to_be_visible()
        fill(anew, Password="another-vise-to-clamp")
        anew.get_by_role("button", name="Set it and sign in").click()
        expect(anew.get_by_role("heading", name="Jobs")).to_be_visible()
        marek.reload()
        expect(marek.get_by_role("button", name="Sign in")).to_be_visible()
        late = self.outside(link)
        expect(late.get_by_text("This link was used, or has expired")).to_be_visible()

    def test_a_second_factor_is_turned_on_and_asked_for(self):
        marek = self.window("marek")
        marek.goto(f"{self.live_server_url}/me")
        marek.get_by_role("button", name="Ask for a code from my phone too").click()
        code = marek.get_by_label("The code that it shows then")
        code.fill("000000")
        marek.get_by_role("button", name="Turn it on").click()
        expect(marek.get_by_text("type the six figures that the app shows now")).to_be_visible()
        expect(code).to_have_value("000000")
        device = TOTPDevice.objects.get(user__username="marek")
        TOTPDevice.objects.update(throttling_failure_count=0, throttling_failure_timestamp=None)
        code.fill(f"{totp(device.bin_key):06}")
        marek.get_by_role("button", name="Turn it on").click()
        spare = marek.get_by_role("list", name="Spare codes").get_by_role("listitem")
        expect(spare).to_have_count(8)
        written_down = spare.first.inner_text()
        outside = self.outside(self.live_server_url)
        fill(outside, Name="marek", Password=PASSWORD)
        outside.get_by_role("button", name="Sign in").click()
        expect(outside.get_by_text("Type the code that your phone shows too.")).to_be_visible()
        fill(outside, Code_from_your_phone=written_down)
        outside.get_by_role("button", name="Sign in").click()
        expect(outside.get_by_role("heading", name="Jobs")).to_be_visible()

    def test_the_companys_account_is_connected_and_signs_in(self):
        stand_in_provider(self)
        page = self.outside(self.live_server_url)

        def by_the_company(link):
            page.get_by_role("link", name=link).click()
            page.get_by_role("link", name="Dana Wexcombe").click()

        by_the_company("Sign in with the Saltmarsh account")
        expect(page.get_by_text("That account is nobody’s here yet.")).to_be_visible()
        fill(page, Name="dana", Password=PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="My name, password, crews").click()
        by_the_company("Connect it")
        expect(page.get_by_role("button", name="Disconnect it")).to_be_visible()
        page.context.clear_cookies()
        page.goto(f"{self.live_server_url}/shoes")
        by_the_company("Sign in with the Saltmarsh account")
        expect(page.get_by_role("heading", name="Shoes", exact=True)).to_be_visible()

    def test_own_name_password_and_other_places(self):
        marek, elsewhere = self.window("marek"), self.window("marek")
        marek.goto(f"{self.live_server_url}/me")
        marek.get_by_label("Last name").fill("Olinson")
        marek.get_by_role("button", name="Change the name").click()
        expect(marek.get_by_role("heading", name="Marek Olinson")).to_be_visible()
        fill(marek, The_one_you_have="not it", A_new_one="another-vise-to-clamp")
        marek.get_by_role("button", name="Change the password").click()
        expect(marek.get_by_text("That is not your password.")).to_be_visible()
        marek.get_by_role("button", name="Sign out everywhere but here").click()
        expect(marek.get_by_text("this one")).to_be_visible()
        expect(marek.get_by_role("button", name="Sign out there")).to_have_count(0)
        elsewhere.reload()
        expect(elsewhere.get_by_role("button", name="Sign in")).to_be_visible()

    def test_another_crew_is_worked_in_and_other_tabs_follow(self):
        marek = self.window("marek")
        seat(User.objects.get(username="marek"), Crew.objects.create(name="Harbour Crew"), Role.LEAD)
        marek.reload()
        expect(marek.get_by_text("No jobs")).to_be_visible()
        tab = marek.context.new_page()
        tab.goto(f"{self.live_server_url}/me")
        tab.get_by_role("listitem").filter(has_text="Saltmarsh Night Crew").get_by_role("button").click()
        expect(tab.get_by_role("link", name="Kiln 2 feed")).to_be_visible()
        expect(marek.get_by_role("link", name="Kiln 2 feed")).to_be_visible()


class FirstCrew(Journey):
    def setUp(self):
        super().setUp()
        User.objects.all().delete()
        Crew.objects.all().delete()

    def test_it_is_begun_by_the_link_of_whoever_runs_the_server(self):
        page = self.outside(self.live_server_url)
        expect(page.get_by_text("There is no crew on this server yet.")).to_be_visible()
        page.goto(f"{self.live_server_url}/begin/{beginning.token()}")
        fill(page, What_the_crew_is_called="Harbour Crew", First_name="Lena", Last_name="Voss")
        fill(page, Name_to_sign_in_by="lena", Password="two-straps-a-stick")
        page.get_by_role("button", name="Start").click()
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        page.goto(f"{self.live_server_url}/people")
        expect(page.get_by_role("heading", name="People of Harbour Crew")).to_be_visible()
        late = self.outside(f"{self.live_server_url}/begin/{beginning.token()}")
        expect(late.get_by_text("This server has a crew already")).to_be_visible()
